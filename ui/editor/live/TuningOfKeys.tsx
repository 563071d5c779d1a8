'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { equalTuning } from '@/core/formats/keyTuning';
import type { KeyTuning } from '@/core/formats/keyTuning';
import { printTuning, readTuning, sameTuning } from '@/core/formats/midiTuning';
import type { ScalaScale } from '@/core/formats/scala';
import { counted } from '@/ui/parts/counted';
import { FileButton } from '@/ui/parts/FileButton';
import { saveFile } from '@/ui/parts/files';
import { tell, tellFault } from '@/ui/parts/messages';
import { setSetting } from '@/ui/parts/settings';
import type { Controllers } from './midi';
import { openTuning, TUNING_FILES } from './openTuning';

interface Props {
  readonly tuning: KeyTuning;
  readonly controllers: Controllers;
}

/** What the keys play: from a file, or as a MIDI device sends it; and back into a file. */
export function TuningOfKeys({ tuning, controllers }: Props) {
  const scale = useRef<ScalaScale | null>(null);
  const [receives, setReceives] = useState(false);
  const isEqual = sameTuning(tuning, equalTuning);
  const now = useRef(tuning);
  useEffect(() => {
    now.current = tuning;
  }, [tuning]);
  useEffect(
    () =>
      controllers.listen((word) => {
        if (word.is !== 'exclusive') return;
        const read = readTuning(word.bytes, now.current);
        if (!read.ok) return;
        now.current = read.value;
        setSetting('keyTuning', read.value);
      }),
    [controllers],
  );
  const load = async (file: File): Promise<void> => {
    const read = await openTuning(file, scale.current);
    if (!read.ok) return tellFault(`${file.name}: ${read.errors} The keyboard’s tuning was not changed.`);
    scale.current = read.value.scale;
    setSetting('keyTuning', read.value.tuning);
  };
  const receive = (): void =>
    void controllers
      .open({ exclusive: true })
      .then((devices) => {
        setReceives(true);
        tell(`A tuning sent by ${counted(devices.length, 'MIDI device')} will be used.`);
      })
      .catch(tellFault);
  return (
    <Box
      role="group"
      aria-label="Keyboard tuning"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}
    >
      <Box component="span" data-tuning={tuning.name}>{`Tuning: ${tuning.name}`}</Box>
      <FileButton
        accept={TUNING_FILES}
        says="A MIDI tuning, a Scala scale or a keyboard mapping"
        label="Load tuning"
        onFile={load}
      />
      {!receives && <Button onClick={receive}>Receive by MIDI</Button>}
      {!isEqual && (
        <>
          <Button
            onClick={() =>
              saveFile(`${tuning.name}.syx`, new Blob([printTuning(tuning)], { type: 'application/octet-stream' }))
            }
          >
            Save tuning
          </Button>
          <Button onClick={() => setSetting('keyTuning', null)}>Equal temperament</Button>
        </>
      )}
    </Box>
  );
}
