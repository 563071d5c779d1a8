import { useEffect, useState } from 'react';
import type { PlaceToRead } from '@/core';
import { benchJob } from '@/ui/parts/workerJob';
import type { AtRack } from '@/wire/benchJobs';

const known = new WeakMap<AtRack['patch'], Promise<readonly PlaceToRead[]>>();

/** Every place of a patch with what can be read there; null until it is known. */
export function usePlaces(at: AtRack): readonly PlaceToRead[] | null {
  const { patch } = at;
  const [found, setFound] = useState<{ readonly of: AtRack['patch']; readonly places: readonly PlaceToRead[] } | null>(
    null,
  );
  useEffect(() => {
    let live = true;
    const asked = known.get(patch) ?? benchJob((w) => w.places({ patch, rack: null, asMeasured: false })).done;
    known.set(patch, asked);
    asked.then(
      (places) => live && setFound({ of: patch, places }),
      () => known.delete(patch),
    );
    return () => {
      live = false;
    };
  }, [patch]);
  return found?.of === patch ? found.places : null;
}
