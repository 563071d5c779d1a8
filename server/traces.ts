import { parsePatch, recordingsOf } from '../core';
import type { StoredTrace } from './beside/tasks';
import { AssetRow } from './models';

/** The recordings that a stored patch plays; most play none, and are not read for it. */
export async function tracesOf(body: string): Promise<StoredTrace[]> {
  if (!body.includes('"assetId"')) return [];
  const result = parsePatch(JSON.parse(body) as unknown);
  const ids = result.ok ? recordingsOf(result.value) : [];
  const rows = ids.length > 0 ? await AssetRow.findAll({ where: { id: ids } }) : [];
  return rows.map(({ id, sampleRate, volts }) => ({ id, sampleRate, volts }));
}
