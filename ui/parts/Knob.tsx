'use client';
import LockIcon from '@mui/icons-material/Lock';
import LockOpenIcon from '@mui/icons-material/LockOpen';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import { memo, useEffect, useRef, useState } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { angleOf, clockOf, positionOf, readTyped, showNumber, valueAt } from '@/core';
import type { NumberSpec, Travel } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import { TypedValue } from './TypedValue';

const STEP = 0.01;
const FINE = 0.001;
/** This far up turns a knob from end to end, pixels. */
const REACH = 220;

interface Props {
  readonly label: string;
  readonly spec: NumberSpec | NumberSpec<number | null>;
  readonly travel: Travel;
  readonly value: number;
  readonly shown: string;
  /** What it is, on hover. */
  readonly says: string | undefined;
  readonly locked: boolean;
  readonly onChange: (value: number) => void;
  readonly onDefault: () => void;
  readonly onLock: () => void;
}

/** As many digits as a hand can set: a ten-thousandth of the travel. */
function rounded(value: number, travel: Travel, whole: boolean): number {
  if (whole) return Math.round(value);
  if (travel.taper === 'log') return Number(value.toPrecision(5));
  const digits = Math.max(0, 4 - Math.ceil(Math.log10(travel.max - travel.min || 1)));
  return Number(value.toFixed(digits));
}

/** Whether two renderings of a knob would look the same; its callbacks always speak of the same parameter. */
const same = (a: Props, b: Props): boolean =>
  a.value === b.value &&
  a.shown === b.shown &&
  a.locked === b.locked &&
  a.label === b.label &&
  a.spec === b.spec &&
  a.travel.min === b.travel.min &&
  a.travel.max === b.travel.max;

/** A knob: number, percent and clock position at once; drag, wheel, arrows, or typed. */
export const Knob = memo(function Knob({
  label,
  spec,
  travel,
  value,
  shown,
  says,
  locked,
  onChange,
  onDefault,
  onLock,
}: Props) {
  const dial = useRef<HTMLDivElement>(null);
  const [typing, setTyping] = useState<string | null>(null);
  const drag = useRef<{ y: number; position: number } | null>(null);
  const position = positionOf(travel, value);
  const turnTo = (p: number): void => {
    const next = rounded(valueAt(travel, p), travel, spec.whole);
    if (next !== value) onChange(Math.min(travel.max, Math.max(travel.min, next)));
  };
  const turnBy = (way: number, fine: boolean): void => {
    if (spec.whole) onChange(Math.min(travel.max, Math.max(travel.min, value + way)));
    else turnTo(position + way * (fine ? FINE : STEP));
  };

  // A passive listener, as React's own is, could not keep the page from scrolling.
  const wheel = useRef(turnBy);
  useEffect(() => {
    wheel.current = turnBy;
  });
  useEffect(() => {
    const element = dial.current;
    const turn = (e: WheelEvent): void => {
      e.preventDefault();
      wheel.current(e.deltaY < 0 ? 1 : -1, e.shiftKey);
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, []);

  const onKey = (e: KeyboardEvent): void => {
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[e.key];
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (way !== undefined) turnBy(way, e.shiftKey);
    else if (e.key === 'Home') turnTo(0);
    else if (e.key === 'End') turnTo(1);
    else if (e.key === 'Delete' || e.key === 'Backspace') onDefault();
    else if (e.key === 'l' || e.key === 'L') onLock();
    else if (e.key === 'Enter') setTyping('');
    else if (/^[-+.,\d\u2212]$/.test(e.key)) setTyping(e.key);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const onDown = (e: PointerEvent<HTMLDivElement>): void => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { y: e.clientY, position };
  };
  const onMove = (e: PointerEvent): void => {
    const from = drag.current;
    if (!from) return;
    const reach = e.shiftKey ? REACH * 10 : REACH;
    const to = Math.min(1, Math.max(0, from.position + (from.y - e.clientY) / reach));
    if (e.shiftKey) drag.current = { y: e.clientY, position: to };
    turnSoon(to);
  };
  // A pointer moves more often than the screen is drawn: the last place of each frame is what counts.
  const soon = useRef<number | null>(null);
  const wanted = useRef(0);
  const turn = useRef(turnTo);
  useEffect(() => {
    turn.current = turnTo;
  });
  const turnSoon = (to: number): void => {
    wanted.current = to;
    soon.current ??= requestAnimationFrame(() => {
      soon.current = null;
      turn.current(wanted.current);
    });
  };

  const clock = clockOf(position);
  const percent = `${showNumber(100 * position, 0)}\u2009%`;
  return (
    <div style={styles.knob} data-knob={label}>
      <div
        ref={dial}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={travel.min}
        aria-valuemax={travel.max}
        aria-valuenow={value}
        aria-valuetext={`${shown}, ${clock}, ${percent}`}
        onKeyDown={onKey}
        onPointerDown={onDown}
        onPointerMove={onMove}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
        onDoubleClick={onDefault}
        style={styles.dial}
      >
        <Dial angle={angleOf(position)} />
      </div>
      {typing === null ? (
        <ButtonBase tabIndex={-1} onClick={() => setTyping('')} title={`Type ${label}`} sx={styles.figure}>
          {shown}
        </ButtonBase>
      ) : (
        <TypedValue
          first={typing}
          label={label}
          read={(text) => readTyped(text, travel, spec.unit)}
          onDone={(next) => {
            setTyping(null);
            dial.current?.focus();
            if (next !== null) onChange(spec.whole ? Math.round(next) : next);
          }}
        />
      )}
      <div title={says} style={styles.says}>
        {label}
        <br />
        <span data-clock>{clock}</span> · {percent}
        {locked && ' · locked'}
      </div>
      <LockButton label={label} locked={locked} onLock={onLock} />
    </div>
  );
}, same);

// Plain styles: a knob is drawn again with every frame of a turn.
const styles = {
  knob: { width: 128, textAlign: 'center', position: 'relative' },
  dial: { width: 64, height: 64, margin: '0 auto', cursor: 'ns-resize', touchAction: 'none', userSelect: 'none' },
  figure: { color: ink.ink, font: `700 14px ${fonts.numbers}`, cursor: 'text', padding: '0 4px', minHeight: 24 },
  says: { fontSize: 12, color: ink.softInk, lineHeight: 1.3 },
} as const;

type LockProps = Pick<Props, 'label' | 'locked' | 'onLock'>;

const LockButton = memo(
  function LockButton({ label, locked, onLock }: LockProps) {
    return (
      <IconButton
        aria-label={locked ? `Unlock ${label}` : `Lock ${label}`}
        aria-pressed={locked}
        aria-keyshortcuts="L"
        tabIndex={-1}
        onClick={onLock}
        sx={{ p: 0.5, position: 'absolute', right: 4, top: 0, color: locked ? ink.wanted : ink.softInk }}
      >
        {locked ? <LockIcon sx={{ fontSize: 14 }} /> : <LockOpenIcon sx={{ fontSize: 14 }} />}
      </IconButton>
    );
  },
  (a, b) => a.label === b.label && a.locked === b.locked,
);

const TICKS = Array.from({ length: 11 }, (_, i) => -150 + 30 * i).map((a) => (
  <line
    key={a}
    x1="0"
    x2="0"
    y1="-25"
    y2={a === -150 || a === 0 || a === 150 ? -19 : -22}
    stroke={ink.softInk}
    transform={`rotate(${a})`}
  />
));

function Dial({ angle }: { angle: number }) {
  return (
    <svg viewBox="-28 -28 56 56" width="64" height="64" aria-hidden="true" display="block">
      {TICKS}
      <line
        x1="0"
        x2="0"
        y1="3"
        y2="-17"
        stroke={ink.ink}
        strokeWidth="3"
        strokeLinecap="round"
        transform={`rotate(${angle})`}
      />
    </svg>
  );
}
