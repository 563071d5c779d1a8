import { useState } from 'react';
import type { ReadQuantity } from '@/core';
import { tellFault } from '@/ui/parts/messages';
import { benchJob } from '@/ui/parts/workerJob';
import type { OpenSession } from './useSession';

export interface Wanted {
  readonly at: string;
  readonly quantity: ReadQuantity;
  readonly step?: string;
}

/** What reads in place of a hand: a simulated rack; null at a real one. */
export interface MeterHere {
  readonly busy: boolean;
  /** Reads places, and puts what was read into the session. */
  read(places: readonly Wanted[]): void;
}

export function useMeter({ session, at, add }: OpenSession): MeterHere | null {
  const [busy, setBusy] = useState(false);
  const { rackIsSimulated: rack } = session;
  if (!rack) return null;
  const read = (places: readonly Wanted[]): void => {
    setBusy(true);
    benchJob((worker) => worker.read(at, rack, places))
      .done.then((values) =>
        add(
          places.map(({ at: place, quantity, step }, i) => ({
            at: place,
            quantity,
            value: values[i] ?? 0,
            ...(step !== undefined && { step }),
          })),
        ),
      )
      .catch(tellFault)
      .finally(() => setBusy(false));
  };
  return { busy, read };
}
