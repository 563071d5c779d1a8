'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Slider from '@mui/material/Slider';
import ToggleButton from '@mui/material/ToggleButton';
import { useMemo } from 'react';
import type { ReactNode } from 'react';
import { useStore } from 'zustand';
import { auditionable, earsOffered, placeName, showNumber } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { setSetting, settings } from '@/ui/parts/settings';
import { audition, toggleAudition, toggleLoop, unmuteAll } from '@/ui/session/audition';
import type { Predicted } from '@/ui/session/usePrediction';
import { headingStyle, ink } from '@/ui/theme/tokens';

type Graph = Predicted['graph'];

const panelStyle = {
  display: 'grid',
  gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'auto minmax(0, 260px) minmax(0, 1fr)' },
  gridTemplateRows: { md: 'auto 1fr' },
  columnGap: 4,
  rowGap: 1.5,
  px: 2,
  py: 1,
  borderBottom: `1px solid ${ink.line}`,
  maxHeight: { md: '50vh' },
  overflowY: { md: 'auto' },
} as const;

interface PartProps {
  readonly title: string;
  /** As high as all others beside it. */
  readonly tall?: boolean;
  readonly children: ReactNode;
}

function Part({ title, tall = false, children }: PartProps) {
  return (
    <Box role="group" aria-label={title} sx={{ minWidth: 0, ...(tall && { gridRow: { md: '1 / 3' } }) }}>
      <Box sx={{ ...headingStyle, mb: 0.5 }}>{title}</Box>
      {children}
    </Box>
  );
}

/** What is muted or heard alone, the ears, a voltage as a tone, a loop: of how it is listened to, not of the patch. */
export function ListeningPanel({ graph }: { readonly graph: Graph }) {
  const { ends, sources } = useMemo(() => auditionable(graph), [graph]);
  const { muted, soloed } = useStore(audition);
  return (
    <Box component="section" aria-label="Listening" sx={panelStyle}>
      <Part title="Mute and solo" tall>
        {ends.length + sources.length === 0 && <Box sx={{ color: ink.softInk }}>Nothing is modulated yet.</Box>}
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3 }}>
          <Rows title="Destinations" places={ends} graph={graph} />
          <Rows title="Sources" places={sources} graph={graph} />
        </Box>
        {muted.size + soloed.size > 0 && <Button onClick={unmuteAll}>Unmute all</Button>}
      </Part>
      <Part title="Ears">
        <Ears graph={graph} />
      </Part>
      <Part title="CV as a tone">
        <Tone graph={graph} />
      </Part>
      <Part title="Loop">
        <Loop />
      </Part>
      <Part title="Background">
        <Background />
      </Part>
    </Box>
  );
}

interface RowsProps {
  readonly title: string;
  readonly places: readonly string[];
  readonly graph: Graph;
}

function Rows({ title, places, graph }: RowsProps) {
  if (places.length === 0) return null;
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{title}</Box>
      {places.map((at) => (
        <Row key={at} at={at} label={placeName(graph.modules, at)} />
      ))}
    </Box>
  );
}

function Row({ at, label }: { readonly at: string; readonly label: string }) {
  const muted = useStore(audition, (s) => s.muted.has(at));
  const soloed = useStore(audition, (s) => s.soloed.has(at));
  const button = (what: 'muted' | 'soloed', on: boolean, says: string) => (
    <ToggleButton
      size="small"
      value={what}
      selected={on}
      aria-label={`${says} ${label}`}
      onChange={() => toggleAudition(what, at)}
      sx={{ px: 1, height: { xs: 36, md: 24 } }}
    >
      {says}
    </ToggleButton>
  );
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, py: 0.25 }} data-audition={at}>
      {button('muted', muted, 'Mute')}
      {button('soloed', soloed, 'Solo')}
      <Box component="span" sx={{ ml: 0.5, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {label}
      </Box>
    </Box>
  );
}

const placed = (graph: Graph) => earsOffered(graph).filter((e) => e.left === e.right);

function Ears({ graph }: { readonly graph: Graph }) {
  const { right, balance } = useStore(audition);
  const offered = placed(graph);
  const side =
    balance === 0 ? 'centre' : `${showNumber(100 * Math.abs(balance), 0)}% ${balance < 0 ? 'left' : 'right'}`;
  return (
    <Box sx={{ width: 210 }}>
      <SelectField
        label="Right ear"
        value={offered.some((e) => e.right === right) ? right : ''}
        options={[['', 'Right ear: as chosen'], ...offered.map((e) => [e.right, `Right ear: ${e.says}`] as const)]}
        onChange={(to) => audition.setState({ right: to })}
        sx={{ maxWidth: 210 }}
      />
      <Slider
        aria-label="Balance"
        size="small"
        min={-1}
        max={1}
        step={0.05}
        value={balance}
        marks={[{ value: 0 }]}
        getAriaValueText={() => side}
        onChange={(_, v) => audition.setState({ balance: v as number })}
      />
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{`Balance: ${side}`}</Box>
    </Box>
  );
}

function Tone({ graph }: { readonly graph: Graph }) {
  const tone = useStore(audition, (s) => s.tone);
  const offered = placed(graph);
  return (
    <Box>
      <SelectField
        label="CV as a tone"
        value={offered.some((e) => e.left === tone) ? tone : ''}
        options={[['', 'Off'], ...offered.map((e) => [e.left, e.says] as const)]}
        onChange={(to) => audition.setState({ tone: to })}
        sx={{ maxWidth: 210 }}
      />
      <Box sx={{ mt: 0.5, fontSize: 13, color: ink.softInk }}>
        {'440\u00a0Hz at 0\u00a0V, an octave up every 4\u00a0V'}
      </Box>
    </Box>
  );
}

/** The longest that a loop begins or ends after the start, seconds. */
const LONGEST = 600;

function Loop() {
  const loop = useStore(audition, (s) => s.loop);
  const field = (label: string, of: 'from' | 'to') => (
    <QuantityField
      label={label}
      value={loop[of]}
      unit="s"
      min={0}
      max={LONGEST}
      width={110}
      onChange={(value) => {
        const next = { ...loop, [of]: value };
        if (next.to > next.from) audition.setState({ loop: next });
      }}
    />
  );
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <ToggleButton
        size="small"
        value="loop"
        selected={loop.on}
        aria-keyshortcuts="Shift+L"
        onChange={toggleLoop}
        sx={{ flexShrink: 0, whiteSpace: 'nowrap' }}
      >
        Loop
      </ToggleButton>
      {field('Loop from', 'from')}
      {field('Loop to', 'to')}
    </Box>
  );
}

function Background() {
  const background = useStore(settings, (s) => s.background);
  return (
    <FormControlLabel
      sx={{ m: 0 }}
      control={
        <Checkbox size="small" checked={background} onChange={(e) => setSetting('background', e.target.checked)} />
      }
      label="Keep playing when this tab is hidden"
    />
  );
}
