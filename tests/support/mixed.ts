import { stream } from '../../core/kinds/random';
import { heavyDocument } from './heavyDocument';
import type { Application } from './setup';

/** Requests as a busy page makes them, and the heaviest patch among them; answers the most memory that was seen, MB. */
export async function mixedRequests(application: Application, count: number, seed: number): Promise<number> {
  const random = stream(seed);
  const call = (method: string, at: string, body?: string): Promise<Response> =>
    fetch(`${application.url}/api${at}`, {
      method,
      ...(body && { body, headers: { 'Content-Type': 'application/json' } }),
    });
  const heavy = JSON.stringify({ patch: heavyDocument() });
  const small = (name: string): object => ({
    format: 'fenvo.patch',
    version: 1,
    name,
    modules: [{ id: 'l', kind: 'lfo' }],
  });
  const made = (await (await call('POST', '/patches', JSON.stringify({ patch: small('busy') }))).json()) as {
    id: string;
  };
  const big = (await (await call('POST', '/patches', heavy)).json()) as { id: string };
  let [revision, most] = [1, 0];
  for (let n = 0; n < count; n++) {
    const at = random();
    if (at < 0.3) {
      const save = await call(
        'PUT',
        `/patches/${made.id}`,
        JSON.stringify({ baseRevision: revision, patch: small(`busy ${n}`) }),
      );
      if (save.ok) revision++;
      await save.arrayBuffer();
    } else if (at < 0.302) await (await call('GET', `/patches/${big.id}`)).arrayBuffer();
    else {
      const path = [
        '/patches',
        `/patches/${made.id}`,
        `/patches/${made.id}/history`,
        '/health',
        '/patches?deleted=true',
      ];
      await (await call('GET', path[Math.floor(random() * path.length)] as string)).arrayBuffer();
    }
    if (n % 50 === 0) most = Math.max(most, application.megabytes);
  }
  return most;
}
