import {
  any,
  choice,
  constant,
  either,
  number,
  optional,
  pair,
  record,
  socket,
  text,
  typed,
  module,
} from '../document/fields';
import { knobsIn } from '../document/knobs';
import { noteModules } from '../document/patch';
import { isObject, own, Reader, shown } from '../document/reader';
import { readField } from '../document/readField';
import { idOf, nameOf } from '../document/sockets';
import type { Cable, Patch, PatchError, Result } from '../document/types';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { ParamValue } from '../kinds/params';
import type { Fault, FaultKind } from './faults';
import { PRICES } from './faults';

const cable = record({ from: socket('output'), to: socket('input') });
const volts = number(-24, 24);

/** A fault, as it is written down. */
const FIELDS = {
  cableMissing: record({ kind: constant('cableMissing'), cable }),
  cableElsewhere: record({
    kind: constant('cableElsewhere'),
    cable,
    end: choice(['from', 'to']),
    socket: socket('any'),
  }),
  cablesSwapped: record({ kind: constant('cablesSwapped'), cables: pair(cable) }),
  knob: record({ kind: constant('knob'), at: text(100), value: number(-1e9, 1e9) }),
  jumper: record({ kind: constant('jumper'), at: text(100), value: any }),
  normalActs: record({
    kind: constant('normalActs'),
    to: socket('input'),
    volts: optional(volts),
    from: optional(socket('any')),
  }),
  normalBroken: record({ kind: constant('normalBroken'), to: socket('input') }),
  load: record({ kind: constant('load'), at: socket('output'), ohms: number(1, 10_000_000) }),
  sourceRange: record({ kind: constant('sourceRange'), module, gain: number(-10, 10), volts }),
  dead: record({ kind: constant('dead'), module }),
  gain: record({ kind: constant('gain'), at: socket('output'), gain: number(-10, 10) }),
  offset: record({ kind: constant('offset'), at: socket('output'), volts }),
} as const;

const KINDS = Object.keys(PRICES) as FaultKind[];

const faultField = typed<Fault>(
  either(Object.values(FIELDS), (x) =>
    Math.max(0, Object.keys(FIELDS).indexOf(String(isObject(x) ? own(x, 'kind') : ''))),
  ),
);

/** What no field alone can say of a fault: that its cables are there, and that its knob or setting is one. */
function check(r: Reader, fault: Fault, patch: Patch): void {
  const planned = buildGraph(patch).wiring.cables;
  const mustBe = (c: Cable, path: string): void => {
    if (!planned.some((d) => d.from === c.from && d.to === c.to))
      r.fail(path, `there is no cable from ${c.from} to ${c.to}`);
  };
  switch (fault.kind) {
    case 'cableMissing':
      mustBe(fault.cable, 'cable');
      break;
    case 'cableElsewhere':
      mustBe(fault.cable, 'cable');
      if (idOf(fault.socket) !== idOf(fault.cable[fault.end]))
        r.fail('socket', `must be a socket of ${idOf(fault.cable[fault.end])}, got ${shown(fault.socket)}`);
      break;
    case 'cablesSwapped':
      fault.cables.forEach((c, i) => mustBe(c, `cables[${i}]`));
      break;
    case 'knob': {
      const knob = knobAt(patch, fault.at);
      if (knob) r.number(fault.value, 'value', knob.min, knob.max);
      else r.fail('at', `must be a hand knob, as trim.amount; got ${shown(fault.at)}`);
      break;
    }
    case 'jumper':
      checkJumper(r, fault.at, fault.value, patch);
      break;
    default:
  }
}

function knobAt(patch: Patch, at: string) {
  const m = patch.modules.find((x) => x.id === idOf(at));
  return m && knobsIn(m, patch.settings.bpm).find((k) => k.at === at);
}

function checkJumper(r: Reader, at: string, value: ParamValue, patch: Patch): void {
  const m = patch.modules.find((x) => x.id === idOf(at));
  const spec = m && kindNamed(m.kind)?.params[nameOf(at)];
  switch (knobAt(patch, at) ? undefined : spec?.type) {
    case 'choice':
    case 'flag': {
      const options: readonly ParamValue[] = spec?.type === 'choice' ? spec.options : [true, false];
      if (!options.includes(value)) r.fail('value', `must be one of ${options.join(', ')}, got ${shown(value)}`);
      break;
    }
    case 'number':
      if (spec?.type === 'number') r.number(value, 'value', spec.min, spec.max);
      break;
    default:
      r.fail('at', `must be a jumper or a switch; got ${shown(at)}`);
  }
}

/** Reads a fault of a patch; every fault of the document itself comes back with its place. */
export function parseFault(json: unknown, patch: Patch): Result<Fault, PatchError[]> {
  if (!isObject(json))
    return { ok: false, errors: [{ path: '', message: `must be a fault (an object), got ${shown(json)}` }] };
  const kind = own(json, 'kind');
  if (!KINDS.some((k) => k === kind))
    return { ok: false, errors: [{ path: 'kind', message: `must be one of ${KINDS.join(', ')}, got ${shown(kind)}` }] };
  const r = new Reader();
  noteModules(r, patch.modules);
  return r.settle((): Fault => {
    const fault = readField(r, faultField, json, '');
    if (r.errors.length === 0) check(r, fault, patch);
    return fault;
  });
}
