'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { placeName } from '@/core';
import { CloseIcon } from '@/ui/parts/icons';
import { SelectField } from '@/ui/parts/SelectField';
import { settings } from '@/ui/parts/settings';
import type { DeskStore } from '@/ui/session/desk';
import { closeSound, forgetAsked, hearing, openSound } from '@/ui/session/hearing';
import { audition, auditionAll } from '@/ui/session/audition';
import { otherTabs } from '@/ui/session/otherTabs';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { Comparing } from './Comparing';
import { HandsPanel } from './HandsPanel';
import { choicesFor } from './listened';
import { Live } from './live';
import { Care, Level, useStopBySpace } from './listeningParts';
import { ListeningPanel } from './ListeningPanel';
import { LiveFigures } from './LiveFigures';
import { RenderButton } from './RenderButton';
import { isSilent } from './transport';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The end whose path is shown. */
  readonly end: string | null;
}

const barStyle = {
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  columnGap: 2,
  rowGap: 0.5,
  px: { xs: 1, md: 2 },
  py: 0.75,
  borderBottom: `1px solid ${ink.line}`,
  background: ink.raised,
} as const;

/** The editor's sound, for as long as the bar is there. */
function useLive(desk: DeskStore): Live {
  const [live] = useState(() => new Live(desk));
  useEffect(() => live.open(), [live]);
  return live;
}

/** What is asked for from elsewhere: by a key, by the editor's header. */
function useAsked(live: Live, ready: boolean): void {
  const asked = useStore(hearing, (s) => s.asked);
  const restarted = useStore(hearing, (s) => s.restarted);
  const swapped = useStore(hearing, (s) => s.swapped);
  const recorded = useStore(hearing, (s) => s.recorded);
  const offered = useStore(hearing, (s) => s.offered);
  useEffect(
    () => () => {
      forgetAsked();
      auditionAll();
    },
    [],
  );
  useEffect(() => {
    if (!ready) return;
    if (asked) live.toggle();
    if (restarted) live.restart();
    if (swapped) live.swap();
    if (recorded) live.recording.recordNow();
    if (asked || restarted || swapped || recorded)
      hearing.setState({ asked: false, restarted: false, swapped: false, recorded: false });
  }, [live, ready, asked, restarted, swapped, recorded]);
  useEffect(() => {
    if (!ready || !offered) return;
    hearing.setState({ offered: null });
    live.hear(offered);
  }, [live, ready, offered]);
}

/** Play, stop, what is listened to, how loud, and how the machine keeps up. */
export function PlayBar({ desk, predicted, end }: Props) {
  const live = useLive(desk);
  const cared = useStore(settings, (s) => s.cared);
  const { phase, choice, level, fault, voice, beyond } = useStore(live.store);
  const hands = useStore(hearing, (s) => s.parts.has('controls'));
  const listening = useStore(hearing, (s) => s.parts.has('listening'));
  const off = useStore(audition, (s) => s.muted.size + s.soloed.size);
  const { graph, shown } = predicted;
  // Before anybody asks for sound: what is heard hangs on it.
  useEffect(() => live.look(end, shown), [live, end, shown]);
  useStopBySpace(live);
  useAsked(live, cared);
  if (!cared) return <Care />;
  const choices = choicesFor(graph, end);
  return (
    <Box component="section" aria-label="Sound" data-live={phase} data-no-print>
      <Box sx={barStyle}>
        <Button color="primary" aria-keyshortcuts="Space" onClick={() => live.toggle()} sx={{ minWidth: 72 }}>
          {isSilent(phase) ? 'Play' : 'Stop'}
        </Button>
        {!isSilent(phase) && (
          <Button aria-keyshortcuts="Shift+P" onClick={() => live.restart()}>
            Restart
          </Button>
        )}
        {choices.length > 0 && (
          <SelectField
            label="Listen to"
            value={choices.some((c) => c.key === choice) ? choice : (choices[0]?.key ?? '')}
            options={choices.map((c) => [c.key, c.says] as const)}
            onChange={(key) => live.listenTo(key)}
            sx={{ minWidth: 130, maxWidth: 220 }}
          />
        )}
        <Level db={level} onLevel={(db) => live.setLevel(db)} />
        <Comparing desk={desk} live={live} />
        <Button aria-pressed={hands} onClick={() => openSound('controls', !hands)}>
          Controls
        </Button>
        <Button aria-pressed={listening} onClick={() => openSound('listening', !listening)}>
          Listening
          {off > 0 && ` (${off} off)`}
        </Button>
        <RenderButton live={live} pins={shown} />
        <LiveFigures live={live} />
        {isSilent(phase) && (
          <IconButton aria-label="Close the play bar" onClick={closeSound} sx={{ ml: 'auto' }}>
            <CloseIcon sx={{ fontSize: 18 }} />
          </IconButton>
        )}
      </Box>
      {voice && (
        <Box sx={{ px: 2, py: 0.5, fontSize: 13, color: ink.softInk }} data-voice>{`Test voice: ${voice}`}</Box>
      )}
      {listening && <ListeningPanel graph={graph} />}
      {hands && <HandsPanel desk={desk} live={live} />}
      {fault && phase !== 'idle' && <Alert severity="error">{fault}</Alert>}
      {!isSilent(phase) && <Heavy live={live} />}
      {!isSilent(phase) && <OtherTabs live={live} />}
      {beyond.length > 0 && !isSilent(phase) && (
        <Alert
          severity="error"
          data-beyond
        >{`Prediction error: ${beyond.map((at) => placeName(desk.getState().patch.modules, at)).join(', ')} went outside the guaranteed range.`}</Alert>
      )}
    </Box>
  );
}

/** Other tabs that play at the same time. */
function OtherTabs({ live }: { readonly live: Live }) {
  const playing = useStore(otherTabs, (s) => s.playing);
  if (playing.size === 0) return null;
  return (
    <Alert severity="info" data-other-tabs action={<Button onClick={() => live.hushOthers()}>Stop the others</Button>}>
      {`Also playing in another tab: ${[...playing.values()].join(', ')}.`}
    </Alert>
  );
}

/** What can be done where a patch takes more than there is; and what was done. */
function Heavy({ live }: { readonly live: Live }) {
  const { heavy, halfRate, alone } = useStore(live.store);
  if (!heavy && !halfRate && !alone) return null;
  const less = [...(halfRate ? ['at half sample rate'] : []), ...(alone ? ['audible modules only'] : [])].join(', ');
  return (
    <Alert
      severity={heavy ? 'warning' : 'info'}
      data-heavy={heavy}
      action={
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          {heavy && !alone && <Button onClick={() => live.setAlone(true)}>Audible modules only</Button>}
          {heavy && !halfRate && <Button onClick={() => live.setHalfRate(true)}>Half sample rate</Button>}
          {halfRate && <Button onClick={() => live.setHalfRate(false)}>Full sample rate</Button>}
          {alone && <Button onClick={() => live.setAlone(false)}>Play all modules</Button>}
        </Box>
      }
    >
      {heavy
        ? 'This patch is using nearly all the available CPU, so expect dropouts. Play fewer modules, or halve the sample rate (the highest frequencies are lost).'
        : `Playing ${less}.`}
    </Alert>
  );
}
