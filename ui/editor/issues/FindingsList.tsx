'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { idOf, issueTitle, placeName } from '@/core';
import type { Dismissal, Finding, ModuleDoc } from '@/core';
import { Section } from '@/ui/parts/Section';
import { ink } from '@/ui/theme/tokens';
import type { DeskStore } from '@/ui/session/desk';
import { FindingRow } from './FindingRow';

interface Props {
  readonly desk: DeskStore;
  readonly findings: readonly Finding[];
  /** No simulation has told them yet. */
  readonly pending: boolean;
  readonly dismissed: readonly Dismissal[];
  /** For the names of places. */
  readonly modules: readonly ModuleDoc[];
  /** The chosen stage: its issues come first. */
  readonly chosen: string | null;
  readonly onOpen: (at: string) => void;
}

const namesOf = ({ modules }: Props): string => modules.map((m) => `${m.id} ${m.label}`).join('\n');

/** The list says the same: it need not be drawn again. */
const same = (a: Props, b: Props): boolean =>
  a.chosen === b.chosen &&
  a.pending === b.pending &&
  a.dismissed === b.dismissed &&
  a.onOpen === b.onOpen &&
  namesOf(a) === namesOf(b) &&
  JSON.stringify(a.findings) === JSON.stringify(b.findings);

/** What is wrong, with its figures and its fix. */
export const FindingsList = memo(function FindingsList(props: Props) {
  const { desk, findings, pending, dismissed, modules, chosen, onOpen } = props;
  const { edit } = desk.getState();
  const here = (f: Finding): boolean => idOf(f.at) === chosen;
  const ordered = [...findings.filter(here), ...findings.filter((f) => !here(f))];
  return (
    <Box component="section" aria-label="Issues">
      <Box component="h2" sx={{ fontSize: 17, m: 0, mb: 1 }}>
        {findings.length > 0 ? `Issues: ${findings.length}` : 'Issues'}
      </Box>
      {findings.length === 0 && (
        <Box sx={{ color: ink.softInk }}>{pending ? 'Checking the patch…' : 'No issues found.'}</Box>
      )}
      {ordered.map((f) => (
        <FindingRow
          key={`${f.code} ${f.at}`}
          desk={desk}
          finding={f}
          place={placeName(modules, f.at)}
          onOpen={onOpen}
        />
      ))}
      {dismissed.length > 0 && (
        <Section id="dismissed" title={`Dismissed: ${dismissed.length}`}>
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
    </Box>
  );
}, same);
