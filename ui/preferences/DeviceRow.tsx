import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { setSetting, settings } from '@/ui/parts/settings';
import { Row } from './Row';

/** The outputs that the browser names: none before it may use an input. */
async function outputs(): Promise<MediaDeviceInfo[]> {
  const all = await navigator.mediaDevices.enumerateDevices();
  return all.filter(({ kind: way, deviceId, label }) => way === 'audiooutput' && deviceId !== '' && label !== '');
}

/** Lets the browser name its devices: it asks for an input, which is closed at once. */
async function named(): Promise<MediaDeviceInfo[]> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
  for (const track of stream.getTracks()) track.stop();
  return outputs();
}

const canChoose = (): boolean => typeof AudioContext !== 'undefined' && 'setSinkId' in AudioContext.prototype;

/** The device that patches play on. */
export function DeviceRow() {
  const device = useStore(settings, (s) => s.device);
  const [known, setKnown] = useState<readonly MediaDeviceInfo[]>([]);
  useEffect(() => {
    if (canChoose()) void outputs().then(setKnown, () => undefined);
  }, []);
  if (!canChoose()) return <Row title="Sound device">This browser plays on the system’s device only.</Row>;
  const others = known.filter((d) => d.deviceId !== 'default');
  const kept = device !== '' && !others.some((d) => d.deviceId === device);
  const find = (): void =>
    void named()
      .then(setKnown)
      .catch(() => tellFault('The browser may not name its devices: it was not allowed to use an input.'));
  return (
    <Row title="Sound device" says="Of this browser; where the device is missing, the system’s plays.">
      <SelectField
        label="Sound device"
        value={device}
        options={[
          ['', 'System default'],
          ...(kept ? [[device, 'Preferred device (not here)'] as const] : []),
          ...others.map((d) => [d.deviceId, d.label] as const),
        ]}
        onChange={(next) => setSetting('device', next)}
        sx={{ minWidth: 200, maxWidth: '100%' }}
      />
      {known.length === 0 && <Button onClick={find}>Show devices…</Button>}
    </Row>
  );
}
