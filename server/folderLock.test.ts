import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';
import { lockFolder } from './folderLock';

it('one server has a folder; the next is told, until the first is gone', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-lock-'));
  const first = await lockFolder(folder);
  await expect(lockFolder(folder)).rejects.toThrow('serves');
  first.release();
  await new Promise((resolve) => setTimeout(resolve, 100));
  (await lockFolder(folder)).release();
  rmSync(folder, { recursive: true, force: true });
});
