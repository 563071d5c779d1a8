import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { placeName, showRange } from '@/core';
import type { Difference } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';

const figure = { fontFamily: fonts.numbers } as const;

function Heads({ names }: { readonly names: readonly string[] }) {
  return (
    <TableHead>
      <TableRow>
        {names.map((name) => (
          <TableCell key={name}>{name}</TableCell>
        ))}
      </TableRow>
    </TableHead>
  );
}

interface DifferencesProps {
  readonly name: string;
  readonly differences: readonly Difference[];
  readonly onTake: (d: Difference) => void;
}

/** Where two states differ, each to be taken over by itself. */
export function DifferencesTable({ name, differences, onTake }: DifferencesProps) {
  if (differences.length === 0)
    return <Box sx={{ color: ink.softInk }}>{`${name} is identical to the current patch.`}</Box>;
  return (
    <Table sx={{ alignSelf: 'start' }}>
      <caption hidden>{`Differences between the current patch and ${name}`}</caption>
      <Heads names={['What', 'Current', name, '']} />
      <TableBody>
        {differences.map((d) => (
          <TableRow key={`${d.what} ${d.there}`} data-difference={d.what}>
            <TableCell component="th" scope="row">
              {d.what}
            </TableCell>
            <TableCell sx={figure}>{d.here}</TableCell>
            <TableCell sx={figure}>{d.there}</TableCell>
            <TableCell>
              <Button aria-label={`Apply ${d.what}`} onClick={() => onTake(d)}>
                Apply
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

interface ReadingsProps {
  readonly name: string;
  readonly here: Predicted;
  readonly there: Predicted;
}

/** What every destination reads in both. */
export function ReadingsTable({ name, here, there }: ReadingsProps) {
  const sockets = [...new Set([...here.ends, ...there.ends])];
  const said = ({ prediction }: Predicted, socket: string): string => {
    const r = prediction.readings.find((x) => x.at === socket);
    return r ? showRange(r.arrivesLow, r.arrivesHigh, r.unit) : '–';
  };
  const titled = (socket: string): string =>
    placeName((here.ends.includes(socket) ? here : there).graph.patch.modules, socket);
  return (
    <Table sx={{ alignSelf: 'start' }}>
      <caption hidden>Readings of every destination, side by side</caption>
      <Heads names={['Destination', 'Current', name]} />
      <TableBody>
        {sockets.map((socket) => (
          <TableRow key={socket} data-compared={socket}>
            <TableCell component="th" scope="row">
              {titled(socket)}
            </TableCell>
            <TableCell sx={figure}>{said(here, socket)}</TableCell>
            <TableCell sx={figure}>{said(there, socket)}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
