import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { DATABASE } from './database';
import { lockFolder, lockHolds } from './folderLock';

it('one server has a folder; the next is told, until the first is gone', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-lock-'));
  const first = await lockFolder(folder);
  await expect(lockFolder(folder)).rejects.toThrow('already using');
  first.release();
  await new Promise((resolve) => setTimeout(resolve, 100));
  (await lockFolder(folder)).release();
  rmSync(folder, { recursive: true, force: true });
});

it('a folder stays taken, for other programs too, whatever is swept up meanwhile', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-lock-'));
  // As a server does, which never lets go of it.
  await lockFolder(folder);
  setFlagsFromString('--expose_gc');
  const sweep = runInNewContext('gc') as () => void;
  for (let i = 0; i < 3; i++) {
    sweep();
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  expect(await lockHolds(folder)).toBe(true);
  await expect(lockFolder(folder)).rejects.toThrow('already using');
});

it('a lock that keeps nobody out is found out', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-lock-'));
  (await lockFolder(folder)).release();
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(await lockHolds(folder)).toBe(false);
  rmSync(folder, { recursive: true, force: true });
});

/** Somebody who may write nothing that is not his own: the one who runs this may be allowed everything. */
async function asSomebody<T>(work: () => Promise<T>): Promise<T> {
  const NOBODY = 65_534;
  const own = process.geteuid?.();
  if (own === 0) process.seteuid?.(NOBODY);
  try {
    return await work();
  } finally {
    if (own === 0) process.seteuid?.(own);
  }
}

describe('a data folder that cannot be written is named, with what to do', () => {
  const refused = async (folder: string): Promise<void> => {
    const asked = asSomebody(() => lockFolder(folder));
    await expect(asked).rejects.toThrow(`Can’t write to ${folder}`);
    await expect(asked).rejects.toThrow('pass a different folder with --data');
  };
  const opened = (work: (folder: string) => Promise<void>) => async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-lock-'));
    try {
      await work(folder);
    } finally {
      chmodSync(folder, 0o755);
      rmSync(folder, { recursive: true, force: true });
    }
  };

  it(
    'one that is there to be read alone',
    opened(async (folder) => {
      chmodSync(folder, 0o555);
      await refused(folder);
    }),
  );
  it(
    'one that would have to be made where nothing may be',
    opened(async (folder) => {
      chmodSync(folder, 0o555);
      await refused(path.join(folder, 'data'));
    }),
  );
  it(
    'one whose database may only be read',
    opened(async (folder) => {
      chmodSync(folder, 0o777);
      writeFileSync(path.join(folder, DATABASE), '', { mode: 0o444 });
      await refused(folder);
    }),
  );
  it(
    'a file in its place, or a folder in the place of its lock',
    opened(async (folder) => {
      const file = path.join(folder, 'file');
      writeFileSync(file, '');
      await expect(lockFolder(file)).rejects.toThrow(`Can’t write to ${file}`);
      const data = path.join(folder, 'data');
      mkdirSync(path.join(data, 'server.lock'), { recursive: true });
      await expect(lockFolder(data)).rejects.toThrow(`Can’t write to ${data}`);
    }),
  );
});
