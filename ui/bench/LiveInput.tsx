'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { buildGraph, placeName, traceFigures } from '@/core';
import { tell, tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { benchJob } from '@/ui/parts/workerJob';
import type { PredictedTrace } from '@/wire/benchJobs';
import { Capture } from './capture';
import { InputScaleFields } from './InputScaleFields';
import { LiveScope } from './LiveScope';
import { keepScale, keptScale } from './scale';
import type { InputScale } from './scale';
import type { OpenSession } from './useSession';

/** What is shown, and what a reading is taken of. */
const WINDOWS = [
  ['1', '1 s'],
  ['4', '4 s'],
  ['8', '8 s'],
] as const;
/** The prediction is looked at for longer, so that it repeats within. */
const PREDICTED = { seconds: 20, rate: 2000 } as const;

/** The input, from the act that asks for it until it is closed. */
function useCapture() {
  const [capture, setCapture] = useState<Capture | null>(null);
  const [scale, setScale] = useState<InputScale | null>(null);
  useEffect(() => () => capture?.close(), [capture]);
  const open = (): void =>
    void Capture.open(() => {
      setCapture(null);
      tellFault('The input was unplugged.');
    })
      .then((found) => {
        setCapture(found);
        setScale(keptScale(found.device));
      })
      .catch(tellFault);
  const put = (found: InputScale): void => {
    if (capture) keepScale(capture.device, found);
    setScale(found);
  };
  return { capture, scale, open, close: () => setCapture(null), put };
}

/** What is predicted at a socket; null until it is known. */
function usePredicted({ at }: OpenSession, socket: string): PredictedTrace | null {
  const [found, setFound] = useState<{ readonly of: string; readonly trace: PredictedTrace } | null>(null);
  useEffect(() => {
    let live = true;
    benchJob((worker) => worker.trace(at, socket, PREDICTED.seconds, PREDICTED.rate))
      .done.then((trace) => live && setFound({ of: socket, trace }))
      .catch(tellFault);
    return () => {
      live = false;
    };
  }, [at, socket]);
  return found?.of === socket ? found.trace : null;
}

/** A sound interface as a scope: the voltage at a socket as it is, over what was predicted there. */
export function LiveInput({ open }: { readonly open: OpenSession }) {
  const { capture, scale, open: listen, close, put } = useCapture();
  if (!capture) return <Asking onOpen={listen} />;
  return <Scope open={open} capture={capture} scale={scale} onScale={put} onClose={close} />;
}

function Asking({ onOpen }: { readonly onOpen: () => void }) {
  return (
    <Box sx={{ pt: 1.5 }}>
      <p>
        A DC-coupled audio interface shows the voltage at a socket over its prediction. Your browser will ask whether
        Fenvo may use the input.
      </p>
      <Alert severity="warning" sx={{ mb: 1.5 }}>
        A rack’s ±10 V can damage an audio input. Use one that takes such levels, or an attenuator in front of it, and
        turn your monitors down.
      </Alert>
      <Button color="primary" onClick={onOpen}>
        Open input
      </Button>
    </Box>
  );
}

interface ScopeProps {
  readonly open: OpenSession;
  readonly capture: Capture;
  readonly scale: InputScale | null;
  readonly onScale: (scale: InputScale) => void;
  readonly onClose: () => void;
}

function Scope({ open, capture, scale, onScale, onClose }: ScopeProps) {
  const [sockets] = useState(() => buildGraph(open.patch).modules.flatMap((m) => m.outputs.map((o) => o.socket)));
  const [socket, setSocket] = useState(() => buildGraph(open.patch).wiring.cables[0]?.from ?? sockets[0] ?? '');
  const [window, setWindow] = useState<'1' | '4' | '8'>('4');
  const predicted = usePredicted(open, socket);
  const seconds = Number(window);
  const take = (): void => {
    if (!scale || scale.acCoupled || !predicted) return;
    const volts = Float64Array.from(capture.last(seconds), (v) => v * scale.volts);
    const figures = traceFigures(volts, capture.sampleRate);
    const readings = predicted.quantities.map((quantity) => ({ at: socket, quantity, value: figures[quantity] }));
    open
      .add(readings)
      .then(() => tell(`${readings.length} readings of ${placeName(open.patch.modules, socket)} added.`))
      .catch(tellFault);
  };
  useHotkeys('r', take);
  return (
    <Box sx={{ pt: 1.5 }} data-live={scale ? (scale.acCoupled ? 'ac' : 'dc') : 'unscaled'}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1 }}>
        <SelectField
          label="Socket"
          value={socket}
          options={sockets.map((s) => [s, placeName(open.patch.modules, s)] as const)}
          onChange={setSocket}
          sx={{ width: { xs: '100%', sm: 200 } }}
        />
        <SelectField label="Window" value={window} options={WINDOWS} onChange={setWindow} sx={{ width: 84 }} />
        <Button onClick={onClose}>Close input</Button>
      </Box>
      <InputScaleFields capture={capture} scale={scale} onScale={onScale} />
      <LiveScope capture={capture} scale={scale} seconds={seconds} predicted={predicted} />
      {scale && !scale.acCoupled && (
        <Button color="primary" disabled={!predicted} onClick={take} sx={{ mt: 1 }}>
          Take readings (R)
        </Button>
      )}
    </Box>
  );
}
