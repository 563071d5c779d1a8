import { recordingsOf } from '../core';
import type { AssetLookup, Patch } from '../core';

type Asset = NonNullable<ReturnType<AssetLookup>>;

/** The imported traces that a patch plays, fetched once each; what cannot be had plays as 0 V. */
export class Assets {
  private readonly known = new Map<string, Asset>();
  private last: { readonly key: string; readonly lookup: AssetLookup } = { key: '', lookup: () => null };

  /** The same function while the same traces are at hand, so that nothing is simulated again without need. */
  async of(patch: Patch): Promise<AssetLookup> {
    const ids = recordingsOf(patch);
    await Promise.all(ids.filter((id) => !this.known.has(id)).map((id) => this.fetch(id)));
    const key = ids.filter((id) => this.known.has(id)).join();
    if (key !== this.last.key) this.last = { key, lookup: (id) => this.known.get(id) ?? null };
    return this.last.lookup;
  }

  private async fetch(id: string): Promise<void> {
    const answer = await fetch(`/api/assets/${encodeURIComponent(id)}`).catch(() => null);
    if (!answer?.ok) return;
    const volts = new Float32Array(await answer.arrayBuffer());
    this.known.set(id, { sampleRate: Number(answer.headers.get('X-Sample-Rate')), volts });
  }
}
