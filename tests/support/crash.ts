import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { stream } from '../../core/kinds/random';
import { Application } from './setup';

/** All rows of a question to a database that nobody else has open. */
function rows(file: string, sql: string): Promise<Record<string, unknown>[]> {
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(file, (error) => error && reject(error));
    db.all(sql, (error, list: Record<string, unknown>[]) => {
      db.close();
      if (error) reject(error);
      else resolve(list);
    });
  });
}

/** What the server has said is stored: patches with their newest revision, sessions, and how many readings. */
interface Acknowledged {
  readonly patches: Map<string, number>;
  readonly sessions: Set<string>;
  readings: number;
}

const documentOf = (n: number): object => ({
  format: 'fenvo.patch',
  version: 1,
  name: `Save ${n}`,
  modules: [
    { id: 'l', kind: 'lfo' },
    { id: 'f', kind: 'filter' },
  ],
  cables: [{ from: 'l.out', to: 'f.cutoff' }],
});

/** Its answer, or null where the server is gone. */
const send = (method: 'POST' | 'PUT', url: string, body: object): Promise<Response | null> =>
  fetch(url, {
    method,
    body: JSON.stringify(body),
    headers: { 'Content-Type': 'application/json' },
  }).catch(() => null);

/** Stands at the rack until the server is gone: sessions, each with a reading that was acknowledged. */
async function atTheRack(url: string, patch: string, acknowledged: Acknowledged): Promise<void> {
  for (;;) {
    const opened = await send('POST', `${url}/api/bench/sessions`, { patch });
    const session = opened?.ok ? ((await opened.json().catch(() => null)) as { id: string } | null) : null;
    if (!session) return;
    acknowledged.sessions.add(session.id);
    const read = await send('POST', `${url}/api/bench/sessions/${session.id}/readings`, {
      readings: [{ at: 'l.out', quantity: 'high', value: 5 }],
    });
    if (!read?.ok) return;
    acknowledged.readings++;
  }
}

/** Makes backups until the server is gone. */
async function backingUp(url: string): Promise<void> {
  for (;;) {
    const answer = await fetch(`${url}/api/library/backup`, { method: 'POST' }).catch(() => null);
    if (!answer?.ok || (await answer.arrayBuffer().catch(() => null)) === null) return;
  }
}

/** Saves and imports until the server is gone; notes what it acknowledged. */
async function busy(url: string, acknowledged: Acknowledged): Promise<void> {
  const made = await send('POST', `${url}/api/patches`, { patch: documentOf(0) });
  if (!made?.ok) return;
  const answer = (await made.json().catch(() => null)) as { id: string } | null;
  if (!answer) return;
  const { id } = answer;
  acknowledged.patches.set(id, 1);
  void atTheRack(url, id, acknowledged);
  for (let revision = 1; ; revision++) {
    void fetch(`${url}/api/assets?name=x&sampleRate=8000`, {
      method: 'POST',
      body: new Float32Array(2000 + revision),
    }).catch(() => null);
    const saved = await send('PUT', `${url}/api/patches/${id}`, {
      baseRevision: revision,
      patch: documentOf(revision),
    });
    if (!saved?.ok) return;
    acknowledged.patches.set(id, revision + 1);
  }
}

async function lookedAt(data: string, acknowledged: Acknowledged): Promise<string[]> {
  const file = path.join(data, 'fenvo.sqlite');
  const faults: string[] = [];
  const [integrity] = await rows(file, 'PRAGMA integrity_check');
  if (integrity?.integrity_check !== 'ok') faults.push(`integrity: ${JSON.stringify(integrity)}`);
  if ((await rows(file, 'PRAGMA foreign_key_check')).length > 0) faults.push('a foreign key points nowhere');
  const kept = new Map((await rows(file, 'SELECT id, revision FROM patches')).map((r) => [r.id, Number(r.revision)]));
  for (const [id, revision] of acknowledged.patches) {
    if ((kept.get(id) ?? 0) < revision)
      faults.push(`patch ${id}: revision ${revision} was acknowledged, ${kept.get(id)} is there`);
  }
  const sessions = new Set((await rows(file, 'SELECT id FROM sessions')).map((r) => r.id));
  for (const id of acknowledged.sessions)
    if (!sessions.has(id)) faults.push(`session ${id} was acknowledged, and is gone`);
  const [readings] = await rows(file, 'SELECT count(*) AS many FROM readings');
  if (Number(readings?.many) < acknowledged.readings)
    faults.push(`${acknowledged.readings} readings were acknowledged, ${Number(readings?.many)} are there`);
  return faults;
}

/**
 * Kills the server at random moments of saves, imports, summaries, sessions at the rack and backups, and a program that makes a new folder in the midst
 * of its migrations; then looks whether all that was acknowledged is there.
 *
 * @returns what was lost or damaged.
 */
export async function crashRounds(rounds: number, seed: number): Promise<string[]> {
  const random = stream(seed);
  const application = await Application.open({ cold: true });
  const acknowledged: Acknowledged = { patches: new Map(), sessions: new Set(), readings: 0 };
  const faults: string[] = [];
  for (let round = 0; round < rounds; round++) {
    const work = [busy(application.url, acknowledged), busy(application.url, acknowledged), backingUp(application.url)];
    await new Promise((resolve) => setTimeout(resolve, 20 + 400 * random()));
    await application.stop('SIGKILL');
    await Promise.all(work);
    faults.push(...(await lookedAt(application.data, acknowledged)).map((f) => `round ${round}: ${f}`));
    // A new folder whose making is cut off anywhere must open the next time.
    const fresh = path.join(application.data, `fresh${round}`);
    const env = { ...process.env, FENVO_DATA: fresh, FENVO_THREADS: 'no' };
    spawnSync(process.execPath, ['dist/seed.mjs', '--bare'], {
      env,
      timeout: Math.round(120 + 500 * random()),
      killSignal: 'SIGKILL',
    });
    const again = spawnSync(process.execPath, ['dist/seed.mjs', '--bare'], { env, encoding: 'utf8' });
    if (again.status !== 0)
      faults.push(`round ${round}: a half-made folder does not open: ${again.stderr.slice(0, 400)}`);
    rmSync(fresh, { recursive: true, force: true });
    if (round + 1 < rounds) await application.start();
  }
  await application.close();
  return faults;
}
