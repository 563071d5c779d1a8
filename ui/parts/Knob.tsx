'use client';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import { memo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { useStore } from 'zustand';
import { angleOf, clockOf, figureOf, positionOf, readTyped, showNumber } from '@/core';
import type { NumberSpec, Travel } from '@/core';
import { LockIcon, LockOpenIcon } from '@/ui/parts/icons';
import { fonts, ink } from '@/ui/theme/tokens';
import { settings } from './settings';
import { TypedValue } from './TypedValue';
import { useTurn } from './useTurn';

interface Props {
  /** As the document names it. */
  readonly param: string;
  readonly label: string;
  readonly spec: NumberSpec | NumberSpec<number | null>;
  readonly travel: Travel;
  readonly value: number;
  readonly shown: string;
  /** What it is, on hover. */
  readonly says: string | undefined;
  readonly locked: boolean;
  /** Set by its pointer alone: what it stands at is not told, nor typed. */
  readonly pointerOnly?: boolean;
  /** What moves it beside the hand that is at it: automation. */
  readonly automated?: boolean;
  /** It stands at its end and would need this value. */
  readonly short?: number | null;
  /** Where it would stand in what is looked at. */
  readonly ghost?: number | null;
  readonly onChange: (value: number) => void;
  readonly onDefault: () => void;
  readonly onLock: () => void;
}

/** Whether two renderings of a knob would look the same; its callbacks always speak of the same parameter. */
const same = (a: Props, b: Props): boolean =>
  a.value === b.value &&
  a.shown === b.shown &&
  a.locked === b.locked &&
  a.short === b.short &&
  a.automated === b.automated &&
  a.ghost === b.ghost &&
  a.label === b.label &&
  a.spec === b.spec &&
  a.travel.panel === b.travel.panel &&
  a.travel.min === b.travel.min &&
  a.travel.max === b.travel.max;

const placeOf = (position: number): { readonly clock: string; readonly percent: string } => ({
  clock: clockOf(position),
  percent: `${showNumber(100 * position, 0)}%`,
});

/** What is said of where it stands; of a knob that is set by its pointer alone, only that. */
function saidOf(
  { pointerOnly, travel, value, shown }: Pick<Props, 'travel' | 'value' | 'shown'> & { readonly pointerOnly: boolean },
  position: number,
) {
  const { clock, percent } = placeOf(position);
  const place = `${clock}, ${percent}`;
  return pointerOnly
    ? { min: 0, max: 100, now: Math.round(100 * position), text: place }
    : { min: travel.min, max: travel.max, now: value, text: `${shown}, ${place}` };
}

/** What keys turn it by, in steps. */
const STEPS: Readonly<Record<string, number>> = {
  ArrowUp: 1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowLeft: -1,
  PageUp: 10,
  PageDown: -10,
};

interface Keyed extends Pick<ReturnType<typeof useTurn>, 'turnTo' | 'turnBy'> {
  readonly onDefault: () => void;
  /** Left out of a knob that is set by its pointer alone. */
  readonly onLock?: () => void;
  readonly onType?: (first: string) => void;
}

/** What a key does to a knob that has the focus. */
const keysOf =
  ({ turnTo, turnBy, onDefault, onLock, onType }: Keyed) =>
  (e: KeyboardEvent): void => {
    const way = STEPS[e.key];
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (way !== undefined) turnBy(way, e.shiftKey);
    else if (e.key === 'Home') turnTo(0);
    else if (e.key === 'End') turnTo(1);
    else if (e.key === 'Delete' || e.key === 'Backspace') onDefault();
    else if (onLock && (e.key === 'l' || e.key === 'L')) onLock();
    else if (onType && e.key === 'Enter') onType('');
    else if (onType && /^[-+.,\d\u2212]$/.test(e.key)) onType(e.key);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };

/** A knob: number, percent and clock position at once; drag, wheel, arrows, or typed. */
export const Knob = memo(function Knob({
  param,
  label,
  spec,
  travel,
  value,
  shown,
  says,
  locked,
  pointerOnly = false,
  automated = false,
  short = null,
  ghost = null,
  onChange,
  onDefault,
  onLock,
}: Props) {
  const dial = useRef<HTMLDivElement>(null);
  const [typing, setTyping] = useState<string | null>(null);
  const position = positionOf(travel, value);
  const { clock, percent } = placeOf(position);
  const said = saidOf({ pointerOnly, travel, value, shown }, position);
  const { turnTo, turnBy, pointer } = useTurn(dial, { travel, whole: spec.whole, value, onChange });
  const onKey = keysOf({ turnTo, turnBy, onDefault, ...(!pointerOnly && { onLock, onType: setTyping }) });

  return (
    <div style={styles.knob} data-knob={param}>
      <div
        ref={dial}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={said.min}
        aria-valuemax={said.max}
        aria-valuenow={said.now}
        aria-valuetext={said.text}
        onKeyDown={onKey}
        {...pointer}
        onDoubleClick={onDefault}
        style={styles.dial}
      >
        <Dial at={position} ghost={ghost === null ? null : positionOf(travel, ghost)} />
      </div>
      {pointerOnly ? null : typing === null ? (
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
        <Stands {...{ clock, percent, travel, value }} />
        <Marks {...{ locked, automated, short }} />
      </div>
      {!pointerOnly && <LockButton label={label} locked={locked} onLock={onLock} />}
    </div>
  );
}, same);

/** What else there is to say of where it stands. */
function Marks({ locked, automated, short }: Required<Pick<Props, 'locked' | 'automated' | 'short'>>) {
  return (
    <>
      {locked && ' · locked'}
      {automated && ' · automated'}
      {short !== null && <Short needs={short} />}
    </>
  );
}

interface StandsProps {
  readonly clock: string;
  readonly percent: string;
  readonly travel: Travel;
  readonly value: number;
}

/** Where its pointer stands, as it is preferred. */
function Stands({ clock, percent, travel, value }: StandsProps) {
  const pointers = useStore(settings, (s) => s.pointers);
  return (
    <>
      {pointers !== 'percent' && <span data-clock>{clock}</span>}
      {pointers === 'both' && ' · '}
      {pointers !== 'clock' && percent}
      <Printed travel={travel} value={value} />
    </>
  );
}

/** What is printed where the pointer stands, on a channel with a panel of its own. */
const Printed = ({ travel, value }: { readonly travel: Travel; readonly value: number }) =>
  travel.panel ? (
    <span data-panel>{` · ${showNumber(figureOf({ ...travel, panel: travel.panel }, value), 1)}`}</span>
  ) : null;

/** That it runs out, and what it would need. */
const Short = ({ needs }: { readonly needs: number }) => (
  <div data-short style={styles.short}>{`Out of range: needs ${showNumber(needs, 2)}`}</div>
);

// Plain styles: a knob is drawn again with every frame of a turn.
const styles = {
  knob: { width: 128, textAlign: 'center', position: 'relative' },
  dial: { width: 64, height: 64, margin: '0 auto', cursor: 'ns-resize', touchAction: 'none', userSelect: 'none' },
  figure: { color: ink.ink, font: `700 14px ${fonts.numbers}`, cursor: 'text', padding: '0 4px', minHeight: 24 },
  says: { fontSize: 12, color: ink.softInk, lineHeight: 1.3 },
  short: { color: ink.error, fontWeight: 700 },
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

/** Its pointer, and where it would stand, as shares of the travel. */
function Dial({ at, ghost }: { readonly at: number; readonly ghost: number | null }) {
  return (
    <svg viewBox="-28 -28 56 56" width="64" height="64" aria-hidden="true" display="block">
      {TICKS}
      {ghost !== null && (
        <line
          data-ghost
          x1="0"
          x2="0"
          y1="3"
          y2="-21"
          stroke={ink.wanted}
          strokeWidth="2"
          strokeDasharray="3 2"
          transform={`rotate(${angleOf(ghost)})`}
        />
      )}
      <line
        x1="0"
        x2="0"
        y1="3"
        y2="-17"
        stroke={ink.ink}
        strokeWidth="3"
        strokeLinecap="round"
        transform={`rotate(${angleOf(at)})`}
      />
    </svg>
  );
}
