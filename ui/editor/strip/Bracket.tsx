'use client';
import { useRef } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { useStore } from 'zustand';
import { showQuantity } from '@/core';
import { useSolving } from '@/ui/session/solving';
import { ink } from '@/ui/theme/tokens';
import type { EndView, Wanted } from './frames';
import type { Layout } from './geometry';
import { endWith, movedTo, nudged } from './handleMoves';
import type { End } from './handleMoves';

interface Props {
  readonly layout: Layout;
  readonly end: EndView;
  /** Its handles can be taken hold of. */
  readonly held: boolean;
}

/** From the right edge of the last frame. */
const INSET = 18;
const ARM = 8;

const edgeOf = ({ x, w }: Layout): number => (x.at(-1) ?? 0) + (w.at(-1) ?? 0) - INSET;

/** A bracket between two drives; of an end that is free there is no arm. */
function pathOf([low, high]: Wanted, { y }: Layout, x: number): string {
  const at = low ?? high ?? 0;
  const [a, b] = [y(low ?? at), y(high ?? at)];
  const arm = (there: boolean): string => (there ? `h${ARM}` : '');
  return `M${x + (high === null ? 0 : ARM)},${b}${high === null ? '' : `h-${ARM}`}V${a}${arm(low !== null)}`;
}

/** What is wanted, as a bracket on the last frame with a handle at each end. */
export function Bracket({ layout, end, held }: Props) {
  if (!end.wanted) return null;
  const x = edgeOf(layout);
  return (
    <g data-bracket={end.target?.at}>
      <path
        d={pathOf(end.wanted, layout, x)}
        stroke={ink.wanted}
        strokeWidth="2"
        fill="none"
        pointerEvents="none"
        role="img"
        aria-label="Target"
      />
      {held && (
        <>
          <Nearest layout={layout} end={end} />
          {(['low', 'high'] as const).map((which) => (
            <Handle key={which} which={which} layout={layout} end={end} />
          ))}
        </>
      )}
    </g>
  );
}

/** What the knobs reach where the wanted cannot be, dashed. */
function Nearest({ layout, end }: Omit<Props, 'held'>) {
  const solving = useSolving();
  const live = useStore(solving, (s) => s.live);
  const found = live?.feasible === false ? live.nearest?.targets.find((t) => t.at === end.target?.at) : undefined;
  if (!found) return null;
  return (
    <path
      d={pathOf([found.lowVolts, found.highVolts], layout, edgeOf(layout) - 6)}
      stroke={ink.error}
      strokeWidth="1.5"
      strokeDasharray="4 3"
      fill="none"
      pointerEvents="none"
      data-nearest
    />
  );
}

/** One end of what is wanted: dragged, or moved by keys. */
function Handle({ which, layout, end }: Omit<Props, 'held'> & { readonly which: End }) {
  const solving = useSolving();
  const soon = useRef<number | null>(null);
  const to = useRef(0);
  const { target, wanted } = end;
  const volts = wanted?.[which === 'low' ? 0 : 1] ?? null;
  if (!target || volts === null) return null;
  const y = layout.y(volts);
  const x = edgeOf(layout) + ARM;
  const { spec, params } = end;
  const unit = target.quantity === 'volts' || !spec ? 'V' : spec.unit(params);
  const figure = unit === 'V' ? volts : (spec?.value(params, volts) ?? null);
  const onMove = (e: PointerEvent<SVGCircleElement>): void => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const top = e.currentTarget.ownerSVGElement?.getBoundingClientRect().top ?? 0;
    to.current = layout.y.invert(e.clientY - top);
    soon.current ??= requestAnimationFrame(() => {
      soon.current = null;
      solving.getState().drag(target, (now) => movedTo(endWith(end, now), which, to.current));
    });
  };
  const onKey = (e: KeyboardEvent): void => {
    const way = { ArrowUp: 1, ArrowRight: 1, '+': 1, ArrowDown: -1, ArrowLeft: -1, '-': -1, PageUp: 10, PageDown: -10 }[
      e.key
    ];
    if (way === undefined || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    const steps = way * (e.shiftKey ? 0.1 : 1);
    solving.getState().drag(target, (now) => nudged(endWith(end, now), which, steps));
  };
  return (
    <circle
      cx={x}
      cy={y}
      r="7"
      fill={ink.raised}
      stroke={ink.wanted}
      strokeWidth="2"
      cursor="ns-resize"
      tabIndex={0}
      role="slider"
      aria-label={`Target ${which === 'low' ? 'minimum' : 'maximum'}`}
      aria-orientation="vertical"
      aria-valuenow={figure ?? 0}
      aria-valuetext={showQuantity(figure, unit)}
      data-handle={which}
      style={{ touchAction: 'none' }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={onMove}
      onPointerUp={() => solving.getState().letGo()}
      onKeyDown={onKey}
    >
      <title>{`Target ${which === 'low' ? 'minimum' : 'maximum'}: ${showQuantity(figure, unit)}. Drag, or press + and −.`}</title>
    </circle>
  );
}
