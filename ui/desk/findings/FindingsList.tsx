'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { idOf, issueTitle, placeName } from '@/core';
import type { Dismissal, Finding, ModuleDoc } from '@/core';
import { Section } from '@/ui/parts/Section';
import { ink } from '@/ui/theme/tokens';
import type { EditDesk } from '@/ui/session/edit';
import { FindingRow } from './FindingRow';

interface Props {
  readonly findings: readonly Finding[];
  readonly dismissed: readonly Dismissal[];
  /** For the names of places. */
  readonly modules: readonly ModuleDoc[];
  /** The chosen stage: what is said of it comes first. */
  readonly chosen: string | null;
  readonly edit: EditDesk;
  readonly onOpen: (at: string) => void;
  /** Shows in the strip what a cure would do; null ends it. */
  readonly onPreview: (finding: Finding | null) => void;
}

const namesOf = ({ modules }: Props): string => modules.map((m) => `${m.id} ${m.label}`).join('\n');

/** The list says the same: it need not be drawn again. */
const same = (a: Props, b: Props): boolean =>
  a.chosen === b.chosen &&
  a.dismissed === b.dismissed &&
  a.onPreview === b.onPreview &&
  a.onOpen === b.onOpen &&
  namesOf(a) === namesOf(b) &&
  JSON.stringify(a.findings) === JSON.stringify(b.findings);

/** What is wrong, with its number and its cure. */
export const FindingsList = memo(function FindingsList(props: Props) {
  const { findings, dismissed, modules, chosen, edit, onOpen, onPreview } = props;
  const here = (f: Finding): boolean => idOf(f.at) === chosen;
  const ordered = [...findings.filter(here), ...findings.filter((f) => !here(f))];
  return (
    <Box component="section" aria-label="Issues">
      <Section id="findings" title={findings.length > 0 ? `Issues: ${findings.length}` : 'Issues'} open>
        {findings.length === 0 && <Box sx={{ color: ink.softInk }}>No issues found.</Box>}
        {ordered.map((f) => (
          <FindingRow
            key={`${f.code} ${f.at}`}
            finding={f}
            place={placeName(modules, f.at)}
            edit={edit}
            onOpen={onOpen}
            onPreview={onPreview}
          />
        ))}
        {dismissed.length > 0 && (
          <Section id="dismissed" title={`${dismissed.length} dismissed`}>
            {dismissed.map((d) => (
              <Box key={`${d.code} ${d.at}`} data-dismissed={d.code} sx={{ py: 0.5 }}>
                <Box>{`${issueTitle(d.code)} at ${placeName(modules, d.at)}: ${d.reason}`}</Box>
                <Button
                  onClick={() =>
                    edit(`Restore “${issueTitle(d.code)}”`, [{ do: 'dismiss', code: d.code, at: d.at, reason: null }])
                  }
                >
                  Restore
                </Button>
              </Box>
            ))}
          </Section>
        )}
      </Section>
    </Box>
  );
}, same);
