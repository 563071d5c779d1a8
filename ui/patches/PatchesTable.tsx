'use client';
import { styled } from '@mui/material/styles';
import Checkbox from '@mui/material/Checkbox';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import { defaultRangeExtractor, useWindowVirtualizer } from '@tanstack/react-virtual';
import { memo, startTransition, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { FocusEvent } from 'react';
import { useHydrated } from '@/ui/parts/useHydrated';
import type { ListedPatch } from '@/wire/patches';
import type { Column, Wanted } from '@/wire/requests';
import { PatchRow } from './PatchRow';
import { ink } from '@/ui/theme/tokens';
import { cellStyle, headStyle } from './tableStyle';
import type { PatchList } from './usePatchList';
import { useRowKeys } from './useRowKeys';

const HEADS: readonly (readonly [Column, string])[] = [
  ['name', 'Name'],
  ['arrives', 'Arrives'],
  ['findings', 'Targets and issues'],
  ['updatedAt', 'Modified'],
];

interface Props {
  readonly list: PatchList;
  readonly order: Pick<Wanted, 'by' | 'down'>;
  readonly onOrder: (order: Pick<Wanted, 'by' | 'down'>) => void;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (id: string) => void;
  readonly onChooseAll: (all: boolean) => void;
  readonly onChanged: () => Promise<void>;
  readonly onRemove: (patch: ListedPatch) => void;
}

/** A row's height before it is measured, pixels. */
const ROW = 77;
/** Rows that are drawn beyond the window's edges. */
const BEYOND = 8;
/** The list rushes by where it moves by more than so many windows at once. */
const RUSH = 1.2;
/** How long it stands until it has stopped, milliseconds. */
const RESTS = 250;
/** The window before it is measured: what the server draws. */
const FIRST = { width: 1280, height: 800 };

/** Where the rows begin in the page, once it is laid out. */
function useTop() {
  const ref = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    const measure = (): void =>
      setTop(ref.current ? Math.round(ref.current.getBoundingClientRect().top + window.scrollY) : 0);
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(document.body);
    return () => watch.disconnect();
  }, []);
  return { ref, top };
}

/** The rows near the window, and the one that has the focus wherever it is. */
function useDrawnRows(list: PatchList, focused: number | null) {
  const total = list.total ?? 0;
  const { ref, top } = useTop();
  const [rushing, setRushing] = useState(false);
  const offset = useRef(0);
  const rows = useWindowVirtualizer({
    count: total,
    estimateSize: () => ROW,
    overscan: BEYOND,
    scrollMargin: top,
    initialRect: FIRST,
    isScrollingResetDelay: RESTS,
    getItemKey: (index) => list.at(index)?.id ?? index,
    onChange: ({ isScrolling, scrollOffset }) => {
      const by = Math.abs((scrollOffset ?? 0) - offset.current);
      offset.current = scrollOffset ?? 0;
      if (isScrolling && by > RUSH * window.innerHeight) setRushing(true);
      // The rows in full are many: they are made between frames.
      if (!isScrolling) startTransition(() => setRushing(false));
    },
    rangeExtractor: (range) => {
      const drawn = defaultRangeExtractor(range);
      return focused === null || focused >= total || drawn.includes(focused) ? drawn : [...drawn, focused];
    },
  });
  const { startIndex = 0, endIndex = 0 } = rows.range ?? {};
  const { draw } = list;
  useEffect(() => {
    if (!rushing) draw(Math.max(0, startIndex - BEYOND), endIndex + BEYOND);
  }, [draw, rushing, startIndex, endIndex]);
  // The server’s page may hold no styles of its own: there the rows follow each other.
  const hydrated = useHydrated();
  const drawn = rows.getVirtualItems().map(({ index, key, start }) => {
    return { index, key, top: hydrated ? start - top : null };
  });
  return { ref, rushing, drawn, height: hydrated ? rows.getTotalSize() : null, measure: rows.measureElement };
}

const indexOf = ({ target }: FocusEvent): number | null => {
  const index = target.closest<HTMLElement>('[data-index]')?.dataset.index;
  return index === undefined ? null : Number(index);
};

/** The patches as a table that is sorted by its heads. Only the rows near the window are drawn. */
export function PatchesTable(props: Props) {
  const { list, order, onOrder, chosen, onChoose, onChooseAll, onChanged, onRemove } = props;
  const [focused, setFocused] = useState<number | null>(null);
  const { ref, rushing, drawn, height, measure } = useDrawnRows(list, focused);
  const keys = useRowKeys(new Map(drawn.map(({ index }) => [index, list.at(index)?.id ?? ''])));
  const total = list.total ?? 0;
  return (
    <Table
      component="div"
      aria-label="Patches"
      aria-rowcount={total + 1}
      aria-busy={list.busy}
      onKeyDown={keys.onKeyDown}
      onFocus={(e) => {
        setFocused(indexOf(e));
        keys.onFocus(e);
      }}
      onBlur={() => setFocused(null)}
    >
      <TableHead component="div">
        <Heads order={order} onOrder={onOrder} total={total} chosen={chosen.size} onChooseAll={onChooseAll} />
      </TableHead>
      <TableBody
        component="div"
        id="patches"
        tabIndex={-1}
        ref={ref}
        sx={{ position: 'relative' }}
        {...(height !== null && { style: { height } })}
      >
        {drawn.map(({ index, key, top }) => {
          const patch = list.at(index);
          // The row in hand stays; those that rush by would be gone before they are read.
          if (!patch || (rushing && index !== focused)) return <ComingRow key={key} index={index} top={top} />;
          return (
            <PatchRow
              key={key}
              ref={measure}
              {...{ index, top, patch, onChoose, onChanged, onRemove }}
              chosen={chosen.has(patch.id)}
              reached={keys.reached === patch.id}
            />
          );
        })}
      </TableBody>
    </Table>
  );
}

interface HeadsProps extends Pick<Props, 'order' | 'onOrder' | 'onChooseAll'> {
  readonly total: number;
  /** How many are chosen. */
  readonly chosen: number;
}

function Heads({ order, onOrder, total, chosen, onChooseAll }: HeadsProps) {
  const all = total > 0 && chosen >= total;
  const sortBy = (by: Column): void => onOrder({ by, down: order.by === by ? !order.down : by !== 'name' });
  return (
    <TableRow component="div" sx={headStyle} aria-rowindex={1}>
      <TableCell component="div" role="columnheader" sx={cellStyle.box}>
        <Checkbox
          checked={all}
          indeterminate={!all && chosen > 0}
          onChange={() => onChooseAll(!all)}
          slotProps={{ input: { 'aria-label': 'Select all patches' } }}
        />
      </TableCell>
      <TableCell component="div" role="columnheader" sx={cellStyle.picture} />
      {HEADS.map(([by, name]) => (
        <TableCell
          key={by}
          component="div"
          role="columnheader"
          sx={{ border: 0, p: 0 }}
          sortDirection={order.by === by ? (order.down ? 'desc' : 'asc') : false}
        >
          <TableSortLabel
            active={order.by === by}
            direction={order.by === by && order.down ? 'desc' : 'asc'}
            onClick={() => sortBy(by)}
          >
            {name}
          </TableSortLabel>
        </TableCell>
      ))}
      <TableCell component="div" role="columnheader" sx={cellStyle.menu} />
    </TableRow>
  );
}

const Blank = styled('div')({ height: ROW - 17, background: ink.line, opacity: 0.4, borderRadius: 3 });
const BlankRow = styled('div')({ height: ROW, padding: '8px 0', borderBottom: `1px solid ${ink.line}` });

/** A row that is on its way, or rushes by. */
const ComingRow = memo(function ComingRow({ index, top }: { readonly index: number; readonly top: number | null }) {
  return (
    <BlankRow
      role="row"
      data-coming={index}
      aria-rowindex={index + 2}
      style={{ position: 'absolute', left: 0, right: 0, transform: `translateY(${top ?? 0}px)` }}
    >
      <Blank role="cell" />
    </BlankRow>
  );
});
