'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import useMediaQuery from '@mui/material/useMediaQuery';
import { memo } from 'react';
import type { ReactNode } from 'react';
import { showVoltRange } from '@/core';
import { headingStyle } from '@/ui/theme/tokens';
import { Section } from '@/ui/parts/Section';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import { EndActions } from './EndActions';
import { useUnits } from '@/ui/parts/readingText';
import { EndRow, rowOf } from './EndRow';
import { looseModules } from './loose';
import { SourceRow } from './SourceRow';

const Heading = memo(function Heading({ children }: { children: string }) {
  return (
    <Box component="h2" sx={{ ...headingStyle, px: 1.75, pt: 2, pb: 1 }}>
      {children}
    </Box>
  );
});

/** A list under its heading; on a phone it folds. */
function Group({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const narrow = useMediaQuery('(max-width:899.95px)');
  if (narrow)
    return (
      <Box sx={{ px: 1.75, pt: 1 }}>
        <Section id={title} title={title}>
          <Box sx={{ mx: -1.75 }}>{children}</Box>
        </Section>
      </Box>
    );
  return (
    <>
      <Heading>{title}</Heading>
      {children}
    </>
  );
}

const navStyle = {
  order: { xs: 2, md: 0 },
  width: { md: 236 },
  flexShrink: 0,
  borderRight: { md: `1px solid ${ink.line}` },
  overflowY: 'auto',
  pb: 2,
  contain: { md: 'strict' },
} as const;

interface Props {
  readonly predicted: Predicted;
  /** The sockets to list. */
  readonly ends: readonly string[];
  readonly shown: string | null;
  readonly onShow: (socket: string) => void;
  readonly onSelect: (id: string) => void;
  readonly begin: (task: Task | null) => void;
}

/** The destinations with their figures, then the sources, then what lies beside every path. */
export const EndsList = memo(function EndsList({ predicted, ends, shown, onShow, onSelect, begin }: Props) {
  const { graph, bounds } = predicted;
  const sources = graph.modules.filter((m) => m.kind.category === 'source');
  const loose = looseModules(predicted, ends);
  const units = useUnits();
  return (
    <Box component="nav" data-no-print aria-label="Destinations and sources" sx={navStyle}>
      <Heading>Destinations</Heading>
      {ends.map((socket) => (
        <EndRow key={socket} {...rowOf(socket, predicted, units)} chosen={socket === shown} onShow={onShow} />
      ))}
      {ends.length === 0 && <Box sx={{ px: 1.75, color: ink.softInk }}>No destinations yet.</Box>}
      <EndActions end={(predicted.strip?.frames.length ?? 0) > 1 ? shown : null} begin={begin} />
      <Group title="Sources">
        {sources.map((m) => (
          <SourceRow
            key={m.id}
            id={m.id}
            label={m.label}
            range={showVoltRange(...(bounds.get(m.id)?.outputs[0] ?? [0, 0]))}
            onSelect={onSelect}
          />
        ))}
      </Group>
      {loose.length > 0 && (
        <Group title="Not connected">
          {loose.map(({ id, label, why }) => (
            <SourceRow key={id} id={id} label={label} range={why} onSelect={onSelect} />
          ))}
        </Group>
      )}
      <ModuleAction begin={begin} />
    </Box>
  );
});

const ModuleAction = memo(function ModuleAction({ begin }: Pick<Props, 'begin'>) {
  return (
    <Box sx={{ px: 1.75, pt: 1.5 }}>
      <Button onClick={() => begin({ do: 'module' })}>Add module</Button>
    </Box>
  );
});
