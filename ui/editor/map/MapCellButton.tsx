import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import type { MapCell } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

interface Props {
  readonly reach: MapCell['reach'];
  readonly from: number | null;
  readonly to: number | null;
  readonly inverted: boolean;
  readonly text: string;
  readonly says: string;
  readonly chosen: boolean;
  /** Its place in the table, for the keys. */
  readonly at: string;
  readonly reached: boolean;
  readonly onOpen: () => void;
}

const HATCH = `repeating-linear-gradient(45deg, ${ink.seen} 0 3px, ${ink.bound} 3px 6px)`;

/** One cell: how far, and where in the destination's window; empty, the way to plan a route. */
export const MapCellButton = memo(function MapCellButton(props: Props) {
  const { reach, from, to, inverted, text, says, chosen, at, reached, onOpen } = props;
  const fill = reach === 'direct' ? (inverted ? ink.wanted : ink.seen) : HATCH;
  const [left, right] = reach === 'gated' || from === null || to === null ? [0, 1] : [from, to];
  return (
    <ButtonBase
      aria-label={text ? `${text}. ${says}` : says}
      title={says}
      data-cell={at}
      data-reach={reach}
      tabIndex={reached ? 0 : -1}
      onClick={onOpen}
      sx={{
        display: 'block',
        width: '100%',
        minHeight: 48,
        px: 0.75,
        textAlign: 'left',
        outline: chosen ? `2px solid ${ink.wanted}` : undefined,
        outlineOffset: -2,
      }}
    >
      {reach === 'none' ? (
        <Box component="span" aria-hidden sx={{ display: 'block', textAlign: 'center', color: ink.line, fontSize: 18 }}>
          +
        </Box>
      ) : (
        <>
          <Box
            component="span"
            sx={{ display: 'block', fontFamily: fonts.numbers, fontSize: 13, whiteSpace: 'nowrap' }}
          >
            {text}
          </Box>
          <Box
            component="span"
            sx={{ display: 'block', position: 'relative', height: 6, mt: 0.5, background: ink.line }}
          >
            <Box
              component="span"
              sx={{
                position: 'absolute',
                top: 0,
                bottom: 0,
                left: `${100 * left}%`,
                width: `max(2px, ${100 * (right - left)}%)`,
                background: fill,
              }}
            />
          </Box>
        </>
      )}
    </ButtonBase>
  );
});
