import { recordingsOf } from '../core';
import type { AssetLookup, Patch } from '../core';

type Asset = NonNullable<ReturnType<AssetLookup>>;

/** The imported traces that a patch plays, fetched once; what cannot be had plays as 0 V. */
export class Assets {
  private readonly known = new Map<string, Asset>();
  /** The recordings that were last asked for and answered. */
  private asked = '';
  private last: { readonly key: string; readonly lookup: AssetLookup } = { key: '', lookup: () => null };

  /** The same function while the same traces are at hand, so that nothing is simulated again without need. */
  async of(patch: Patch): Promise<AssetLookup> {
    const ids = recordingsOf(patch);
    // What is not kept there is asked for again only when other recordings are played, not at every move of a knob.
    if (ids.join() !== this.asked) {
      const answered = await Promise.all(ids.filter((id) => !this.known.has(id)).map((id) => this.fetch(id)));
      if (answered.every(Boolean)) this.asked = ids.join();
    }
    const key = ids.filter((id) => this.known.has(id)).join();
    if (key !== this.last.key) this.last = { key, lookup: (id) => this.known.get(id) ?? null };
    return this.last.lookup;
  }

  /** Whether the server said what it has; a server that is gone is asked again. */
  private async fetch(id: string): Promise<boolean> {
    const answer = await fetch(`/api/assets/${encodeURIComponent(id)}`).catch(() => null);
    if (!answer?.ok) return answer?.status === 404;
    const volts = new Float32Array(await answer.arrayBuffer());
    this.known.set(id, { sampleRate: Number(answer.headers.get('X-Sample-Rate')), volts });
    return true;
  }
}
