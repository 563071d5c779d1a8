'use client';
import { useMemo } from 'react';
import type { ReactNode } from 'react';
import type { Patch } from '@/core';
import { Strip } from './Strip';
import type { StripActions } from './Strip';
import { usePrediction } from '@/ui/session/usePrediction';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Preview } from '@/ui/session/previews';
import { changedModules, marksOf } from './views';

type MainProps = StripActions & { readonly chosen: readonly string[] };

/** The strip of the patch, or of what is only proposed. */
export function MainStrip({
  predicted,
  preview,
  end,
  empty,
  ...actions
}: MainProps & {
  predicted: Predicted;
  preview: Preview | null;
  end: string | null;
  empty: ReactNode;
}) {
  const marks = useMemo(() => marksOf(predicted.prediction.findings), [predicted.prediction.findings]);
  if (preview)
    return <PreviewStrip real={predicted} patch={preview.patch} end={preview.show ?? end} marks={marks} {...actions} />;
  const { strip } = predicted;
  if (!strip) return empty;
  return <Strip predicted={predicted} strip={strip} marks={marks} {...actions} />;
}

/** A patch that is only looked at: nothing in it can be taken hold of, so that a click cannot miss. */
function PreviewStrip({
  real,
  patch,
  end,
  marks,
  ...actions
}: MainProps & {
  real: Predicted;
  patch: Patch;
  end: string | null;
  marks: ReturnType<typeof marksOf>;
}) {
  const predicted = usePrediction(patch, end, { whole: false });
  const proposed = useMemo(() => changedModules(real.graph.patch, patch), [real.graph.patch, patch]);
  const strip = predicted.strip ?? real.strip;
  if (!strip) return null;
  return (
    <Strip
      predicted={predicted}
      strip={strip}
      chosen={actions.chosen}
      proposed={proposed}
      marks={marks}
      onChoose={actions.onChoose}
      onBackground={actions.onBackground}
      label="Preview of the path"
    />
  );
}
