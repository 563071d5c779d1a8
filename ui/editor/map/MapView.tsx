'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableFooter from '@mui/material/TableFooter';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import { useMemo, useState } from 'react';
import { placeName, readingFor } from '@/core';
import type { MapRow, PatchMap } from '@/core';
import { DownloadIcon } from '@/ui/parts/icons';
import { tellFault } from '@/ui/parts/messages';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import { readingText, useUnits } from '@/ui/parts/readingText';
import { setSetting, settings } from '@/ui/parts/settings';
import { TextInput } from '@/ui/parts/TextInput';
import type { DeskStore } from '@/ui/session/desk';
import { askRoute, showMap } from '@/ui/session/inspector';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';
import { standing } from '../targets/words';
import { cellSays, cellText } from './figures';
import { MapCellButton } from './MapCellButton';
import { shownPart } from './order';
import type { Part } from './order';
import { useGridKeys } from './useGridKeys';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The destination shown. */
  readonly shown: string | null;
}

/** All sources and all destinations of a patch: which moves which, and how far. */
export function MapView({ desk, predicted, shown }: Props) {
  const { patch } = predicted.graph;
  const { full } = predicted;
  const ask = useMemo((): Asked<PatchMap> | null => {
    if (!full) return null;
    const means = new Map(
      Object.entries(full.prediction.outputs).flatMap(([socket, o]) => (o.mean == null ? [] : [[socket, o.mean]])),
    );
    return (worker) => worker.map(patch, means);
  }, [patch, full]);
  const { last, failure } = usePlanned(ask);
  if (failure) return <Box sx={{ p: 2, color: ink.error }}>{failure}</Box>;
  if (!last) return <Coming count={predicted.graph.modules.filter((m) => m.kind.category === 'source').length} />;
  return <Whole desk={desk} predicted={predicted} shown={shown} map={last} />;
}

/** Where the map will stand. */
function Coming({ count }: { readonly count: number }) {
  return (
    <Box sx={{ p: 2 }} role="status" aria-label="Calculating the map">
      {Array.from({ length: Math.max(1, count) }, (_, i) => (
        <Skeleton key={i} variant="rectangular" height={48} sx={{ mb: 1 }} />
      ))}
    </Box>
  );
}

const tableStyle = {
  '& th, & td': { borderBottom: `1px solid ${ink.line}`, p: 0, verticalAlign: 'middle' },
  '& td + td, & th + th': { borderLeft: `1px solid ${ink.line}` },
  '& tfoot td, & tfoot th': { borderTop: `2px solid ${ink.ink}`, borderBottom: 0 },
} as const;
const rowHeadStyle = {
  position: 'sticky',
  left: 0,
  background: ink.paper,
  zIndex: 1,
  minWidth: 116,
  overflowWrap: 'normal',
  py: 0.5,
  pr: 1,
} as const;

function Whole({ desk, predicted, shown, map }: Props & { readonly map: PatchMap }) {
  const [words, setWords] = useState('');
  const [by, setBy] = useState<string | null>(null);
  const { modules } = predicted.graph.patch;
  const places = map.columns.map((c) => placeName(modules, c.at));
  const part = shownPart(map, places, words, { by });
  const keys = useGridKeys(part.rows.length, part.columns.length);
  const save = (): void =>
    void import('./saveMap').then((m) => m.saveMap(predicted.graph.patch.name, map, places)).catch(tellFault);
  return (
    <Box data-map={map.rows.length} sx={{ flex: 1, minHeight: 0, overflow: 'auto', px: 2, pb: 2 }}>
      <Box data-no-print sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, py: 1 }}>
        <TextInput
          type="search"
          label="Filter sources and destinations"
          placeholder="Filter"
          value={words}
          onChange={setWords}
          sx={{ width: 200 }}
        />
        <Box sx={{ flex: 1 }} />
        <Button onClick={() => window.print()}>Print</Button>
        <Button startIcon={<DownloadIcon />} onClick={save}>
          CSV
        </Button>
      </Box>
      {map.rows.length === 0 ? (
        <p>No sources yet. Add an LFO, an envelope or a fader.</p>
      ) : (
        <Table aria-label="Map: sources and destinations" sx={tableStyle} onKeyDown={keys.onKeyDown}>
          <Heads map={map} part={part} places={places} by={by} onBy={setBy} />
          <TableBody>
            {part.rows.map((row, y) => (
              <Row key={row.id} {...{ desk, row, map, part, places, shown, y, reached: keys.reached }} />
            ))}
          </TableBody>
          <Foot predicted={predicted} map={map} part={part} />
        </Table>
      )}
      {part.rows.length === 0 && map.rows.length > 0 && <p>No matches.</p>}
      <Box sx={{ fontSize: 12, color: ink.softInk, mt: 1 }}>
        Each cell: how far this source alone moves that destination, with all others held at their mean. Rust: inverted.
        Hatched: multiplied by another signal (×), or only started by it (gates). + plans a route.
      </Box>
    </Box>
  );
}

interface HeadsProps {
  readonly map: PatchMap;
  readonly part: Part;
  readonly places: readonly string[];
  readonly by: string | null;
  readonly onBy: (at: string | null) => void;
}

function Heads({ map, part, places, by, onBy }: HeadsProps) {
  return (
    <TableHead>
      <TableRow>
        <TableCell component="th" scope="col" sx={{ ...rowHeadStyle, fontSize: 12, color: ink.softInk }}>
          Source → destination
        </TableCell>
        {part.columns.map((i) => {
          const at = map.columns[i]?.at ?? '';
          return (
            <TableCell key={at} component="th" scope="col" sortDirection={by === at ? 'desc' : false}>
              <TableSortLabel
                active={by === at}
                direction="desc"
                onClick={() => onBy(by === at ? null : at)}
                sx={{
                  px: 0.75,
                  py: 0.5,
                  fontSize: 12,
                  fontWeight: 700,
                  lineHeight: 1.25,
                  minWidth: 88,
                  overflowWrap: 'normal',
                }}
              >
                {places[i]}
              </TableSortLabel>
            </TableCell>
          );
        })}
      </TableRow>
    </TableHead>
  );
}

interface RowProps extends Pick<Props, 'desk' | 'shown'> {
  readonly row: MapRow;
  readonly map: PatchMap;
  readonly part: Part;
  readonly places: readonly string[];
  readonly y: number;
  readonly reached: string;
}

function Row({ desk, row, map, part, places, shown, y, reached }: RowProps) {
  const { selected, showEnd, select } = desk.getState();
  return (
    <TableRow data-map-row={row.id}>
      <TableCell component="th" scope="row" sx={rowHeadStyle}>
        <Box sx={{ fontWeight: 700, fontSize: 13, lineHeight: 1.25 }}>{row.name}</Box>
        <Box sx={{ fontSize: 12, color: ink.softInk }}>{row.about}</Box>
      </TableCell>
      {part.columns.map((i, x) => {
        const [cell, column] = [row.cells[i], map.columns[i]];
        if (!cell || !column) return <TableCell key={i} />;
        const open = (): void => {
          showEnd(column.at);
          if (cell.reach === 'none' && row.output !== null) {
            setSetting('sections', { ...settings.getState().sections, route: true });
            return askRoute({ from: row.output, to: column.at });
          }
          showMap(false);
          if (row.is === 'source') select(row.id);
        };
        return (
          <TableCell key={column.at}>
            <MapCellButton
              reach={cell.reach}
              from={cell.share?.[0] ?? null}
              to={cell.share?.[1] ?? null}
              inverted={cell.sign < 0}
              text={cellText(cell, column)}
              says={cellSays(cell, row.name, { place: places[i] ?? '', unit: column.unit })}
              chosen={shown === column.at && selected === row.id}
              at={`${y} ${x}`}
              reached={reached === `${y} ${x}`}
              onOpen={open}
            />
          </TableCell>
        );
      })}
    </TableRow>
  );
}

/** What arrives altogether, against its target. */
function Foot({ predicted, map, part }: Pick<Props, 'predicted'> & { readonly map: PatchMap; readonly part: Part }) {
  const { prediction, missed } = predicted;
  const units = useUnits();
  return (
    <TableFooter>
      <TableRow>
        <TableCell component="th" scope="row" sx={{ ...rowHeadStyle, color: ink.softInk, fontSize: 13 }}>
          Arrives
        </TableCell>
        {part.columns.map((i) => {
          const at = map.columns[i]?.at ?? '';
          const reading = prediction.readings.find((r) => r.at === at);
          const targets = missed.filter((m) => m.target.at === at);
          const worst = targets.find((t) => !t.met) ?? targets[0];
          return (
            <TableCell key={at} sx={{ px: 0.75, py: 0.5 }}>
              <Box sx={{ px: 0.75, fontFamily: fonts.numbers, fontSize: 12, color: ink.ink }}>
                {reading ? readingText(reading, units) : '–'}
              </Box>
              {worst && (
                <Box sx={{ px: 0.75, fontSize: 12, color: worst.met ? ink.good : ink.error }}>
                  {standing(worst, readingFor(prediction.readings, worst.target))}
                </Box>
              )}
            </TableCell>
          );
        })}
      </TableRow>
    </TableFooter>
  );
}
