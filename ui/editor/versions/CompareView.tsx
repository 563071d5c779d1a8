'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef } from 'react';
import { useStore } from 'zustand';
import { differencesOf, differenceEdits } from '@/core';
import type { Difference } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { changeAddress } from '@/ui/bench/changeAddress';
import { counted } from '@/ui/parts/counted';
import { SafeLink } from '@/ui/parts/SafeLink';
import { settings } from '@/ui/parts/settings';
import { headingStyle } from '@/ui/theme/tokens';
import { ink } from '@/ui/theme/tokens';
import type { Compared } from '@/ui/session/scene';
import { stripDomain } from '../strip/model';
import { Strip } from '../strip/Strip';
import { DifferencesTable, ReadingsTable } from './CompareTables';
import type { Volts } from '../strip/geometry';
import { usePrediction } from '@/ui/session/usePrediction';
import type { Predicted } from '@/ui/session/usePrediction';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly other: Compared;
  readonly end: string | null;
  readonly onClose: () => void;
}

/** The patch as it is, over another state of it, on one ruler; and where they differ. */
export function CompareView({ desk, predicted, other, end, onClose }: Props) {
  const there = usePrediction(other.patch, end);
  const patch = predicted.graph.patch;
  const differences = useMemo(() => differencesOf(patch, other.patch), [patch, other.patch]);
  const changed = useMemo(() => new Set(differences.flatMap((d) => d.module ?? [])), [differences]);
  const domain = shared(predicted, there);
  const { edit } = desk.getState();
  const rack = useStore(settings, (s) => s.rack);
  const isVariant = patch.variants.some((v) => v.name === other.name);
  const take = (d: Difference): void => edit(`Apply ${d.what}`, differenceEdits(d));
  const takeAll = (): void => edit(`Load ${other.name}`, [{ do: 'state', state: other.patch }]);
  // On a phone it was asked for from below.
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    if ((section.current?.getBoundingClientRect().top ?? 0) < 0) section.current?.scrollIntoView({ block: 'start' });
  }, []);
  return (
    <Box
      component="section"
      ref={section}
      aria-label={`Compared with ${other.name}`}
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}
    >
      <Row name="Current" predicted={predicted} domain={domain} changed={changed} />
      <Row name={other.name} predicted={there} domain={domain} changed={changed} />
      <Box
        sx={{
          borderTop: `1px solid ${ink.line}`,
          maxHeight: '32%',
          minHeight: 180,
          overflowY: 'auto',
          px: 1.75,
          py: 1,
        }}
      >
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mb: 0.5 }}>
          <Box component="h2" sx={{ ...headingStyle, flex: 1, whiteSpace: 'nowrap' }}>
            {differences.length === 0 ? 'No difference' : counted(differences.length, 'difference')}
          </Box>
          {isVariant && (
            <Button
              component={SafeLink}
              href={changeAddress({ from: desk.getState().id, to: desk.getState().id, toVariant: other.name, rack })}
            >
              Change sheet
            </Button>
          )}
          {differences.length > 0 && <Button onClick={takeAll}>{`Load ${other.name}`}</Button>}
          <Button color="primary" onClick={onClose}>
            Stop comparing
          </Button>
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '3fr 2fr' }, columnGap: 3 }}>
          <DifferencesTable name={other.name} differences={differences} onTake={take} />
          <ReadingsTable name={other.name} here={predicted} there={there} />
        </Box>
      </Box>
    </Box>
  );
}

/** One span of volts for both strips. */
function shared(a: Predicted, b: Predicted): Volts {
  const spans = [a, b].flatMap((p) => (p.strip ? [stripDomain(p, p.strip)] : []));
  return [Math.min(-1, ...spans.map((s) => s[0])), Math.max(1, ...spans.map((s) => s[1]))];
}

function Row({
  name,
  predicted,
  domain,
  changed,
}: {
  name: string;
  predicted: Predicted;
  domain: Volts;
  changed: ReadonlySet<string>;
}) {
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column', borderBottom: `1px solid ${ink.line}` }}
    >
      <Box component="h3" sx={{ fontSize: 13, m: 0, px: 1.75, pt: 0.75 }}>
        {name}
      </Box>
      {predicted.strip ? (
        <Strip
          predicted={predicted}
          strip={predicted.strip}
          proposed={changed}
          domain={domain}
          label={`The path: ${name}`}
          low
        />
      ) : (
        <Box sx={{ p: 2, color: ink.softInk }}>This destination doesn’t exist in this version.</Box>
      )}
    </Box>
  );
}
