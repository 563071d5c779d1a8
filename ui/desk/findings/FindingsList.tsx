'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useState } from 'react';
import { explain, idOf, placeName } from '@/core';
import type { Dismissal, Finding, ModuleDoc } from '@/core';
import { fieldStyle, headingStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';
import type { EditDesk } from '@/ui/session/edit';

const colours = { error: ink.error, warning: ink.warning, note: ink.ink } as const;
const words = { error: 'Error', warning: 'Warning', note: 'Note' } as const;

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
  const { findings, dismissed, modules, chosen, edit } = props;
  const here = (f: Finding): boolean => idOf(f.at) === chosen;
  const ordered = [...findings.filter(here), ...findings.filter((f) => !here(f))];
  return (
    <Box component="section" aria-label="Findings" sx={{ mt: 2 }}>
      <Box component="h2" sx={{ ...headingStyle, mb: 0.5 }}>
        Findings
      </Box>
      {findings.length === 0 && <Box sx={{ color: ink.softInk }}>Nothing to say.</Box>}
      {ordered.map((f) => (
        <FindingRow key={`${f.code} ${f.at}`} finding={f} place={placeName(modules, f.at)} {...props} />
      ))}
      {dismissed.length > 0 && (
        <Box
          component="details"
          sx={{ borderTop: `1px solid ${ink.line}`, pt: 1, '& summary': { cursor: 'pointer', color: ink.softInk } }}
        >
          <summary>{`${dismissed.length} dismissed`}</summary>
          {dismissed.map((d) => (
            <Box key={`${d.code} ${d.at}`} data-dismissed={d.code} sx={{ py: 0.5 }}>
              <Box>{`${d.code} at ${placeName(modules, d.at)}: ${d.reason}`}</Box>
              <Button
                onClick={() => edit(`say ${d.code} again`, [{ do: 'dismiss', code: d.code, at: d.at, reason: null }])}
              >
                Say it again
              </Button>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}, same);

function FindingRow({ finding: f, place, edit, onOpen, onPreview }: Props & { finding: Finding; place: string }) {
  const [reason, setReason] = useState<string | null>(null);
  const [looking, setLooking] = useState(false);
  const look = (on: boolean): void => {
    setLooking(on);
    onPreview(on ? f : null);
  };
  return (
    <Box data-finding={f.code} data-at={f.at} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ fontWeight: 700, color: colours[f.severity] }}>{`${words[f.severity]} at ${place}`}</Box>
      <Box sx={{ mb: 0.5 }}>{f.message}</Box>
      <Box component="details" sx={{ mb: 0.75, fontSize: 13, '& summary': { cursor: 'pointer', color: ink.softInk } }}>
        <summary>Why it matters</summary>
        {explain(f.code)}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {f.cure && (
          <>
            <Button
              color="primary"
              onClick={() => {
                look(false);
                edit(f.cure?.label ?? '', f.cure?.edits ?? []);
              }}
            >
              {f.cure.label}
            </Button>
            <Button aria-pressed={looking} onClick={() => look(!looking)}>
              {looking ? 'End the preview' : 'Preview'}
            </Button>
          </>
        )}
        <Button onClick={() => onOpen(f.at)}>Show</Button>
        <Button aria-expanded={reason !== null} onClick={() => setReason(reason === null ? '' : null)}>
          Dismiss
        </Button>
      </Box>
      {reason !== null && (
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1, mt: 1 }}
          onSubmit={(e) => {
            e.preventDefault();
            const said = reason.trim();
            if (said) edit(`dismiss ${f.code}`, [{ do: 'dismiss', code: f.code, at: f.at, reason: said }]);
          }}
        >
          <Box
            component="input"
            autoFocus
            aria-label="Why it is meant so"
            placeholder="Why it is meant so"
            maxLength={500}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            sx={{ ...fieldStyle, flex: 1, maxWidth: 'none', minWidth: 0 }}
          />
          <Button type="submit" disabled={!reason.trim()}>
            Keep
          </Button>
        </Box>
      )}
    </Box>
  );
}
