'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { helpersAt } from '@/core';
import type { Patch } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { Section } from '@/ui/parts/Section';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';
import { SettingRow } from './SettingRow';

interface Props {
  readonly id: string;
  readonly patch: Patch;
  readonly edit: EditDesk;
}

const START = { openDb: 12, phase: 0.25 };

/** What can be set at this stage in one go; worked out when it is opened. */
export function HelpersSection(props: Props) {
  return (
    <Section id="helpers" title="Set it for me">
      <Helpers {...props} />
    </Section>
  );
}

function Helpers({ id, patch, edit }: Props) {
  const [options, setOptions] = useState(START);
  const helpers = useMemo(() => helpersAt(patch, id, options), [patch, id, options]);
  const asks = (key: string): boolean => helpers.some((h) => h.key === key);
  if (helpers.length === 0) return <Box sx={{ color: ink.softInk }}>Nothing here can be set by itself.</Box>;
  return (
    <>
      {asks('stays open') && (
        <SettingRow label="still open, dB down">
          <QuantityField
            label="still open, dB down"
            unit="dB"
            value={options.openDb}
            min={0.5}
            max={60}
            width={128}
            onChange={(openDb) => setOptions({ ...options, openDb })}
          />
        </SettingRow>
      )}
      {asks('locked') && (
        <SettingRow label="phase">
          <QuantityField
            label="phase of the lock"
            unit="°"
            value={360 * options.phase}
            min={0}
            max={360}
            width={128}
            onChange={(degrees) => setOptions({ ...options, phase: degrees / 360 })}
          />
        </SettingRow>
      )}
      {helpers.map((h) => (
        <Box key={h.key} data-helper={h.key} sx={{ py: 0.5 }}>
          <Button color="primary" onClick={() => edit(h.title, h.edits)}>
            {h.title}
          </Button>
          <Box sx={{ fontSize: 13, color: ink.softInk, mt: 0.25 }}>{h.says}</Box>
        </Box>
      ))}
    </>
  );
}
