import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { readQuantity, showNumber, withUnit } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { Capture } from './capture';
import { scaleByDc, scaleByPeaks } from './scale';
import type { InputScale } from './scale';

interface Props {
  readonly capture: Capture;
  readonly scale: InputScale | null;
  readonly onScale: (scale: InputScale) => void;
}

/** What is looked at for the scale, seconds. */
const LOOK = { constant: 2, peaks: 4 } as const;

/** How many volts full scale is, found once against a known voltage. */
export function InputScaleFields({ capture, scale, onScale }: Props) {
  const [text, setText] = useState('5 V');
  const [blocked, setBlocked] = useState(scale?.acCoupled ?? false);
  const [fault, setFault] = useState<string | null>(null);
  const known = readQuantity(text, 'V');
  const find = (peaks: boolean): void => {
    if (known === null || known === 0) return setFault('Enter a voltage other than 0.');
    const found = peaks ? scaleByPeaks(capture.last(LOOK.peaks), known) : scaleByDc(capture.last(LOOK.constant), known);
    setFault(null);
    if (found === null) return setFault('Nothing is moving at this input.');
    if (found === 'moves') return setFault('This voltage is moving. Patch in a steady one.');
    if (found === 'blocked') return setBlocked(true);
    setBlocked(found.acCoupled);
    onScale(found);
  };
  return (
    <Box sx={{ mb: 1 }}>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>
        {scale
          ? `Full scale is ${withUnit(showNumber(Math.abs(scale.volts), 2), 'V')}${scale.volts < 0 ? ', inverted' : ''}. To check it, patch in a known voltage.`
          : 'Patch in a voltage you know, for example one your meter reads as 5 V.'}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'flex-start', gap: 1, mt: 0.5 }}>
        <Box sx={{ width: 90 }}>
          <TextInput label="Known voltage" figures fullWidth value={text} fault={fault} onChange={setText} />
        </Box>
        <Button onClick={() => find(false)}>Set scale</Button>
        {blocked && <Button onClick={() => find(true)}>Set scale by peak-to-peak</Button>}
      </Box>
      {blocked && (
        <Alert severity="warning" sx={{ mt: 1 }} data-ac-coupled>
          No DC comes through: this input is AC-coupled. Only shapes and peak-to-peak can be compared.
        </Alert>
      )}
    </Box>
  );
}
