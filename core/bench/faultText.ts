import { knobPlace, placeName } from '../document/names';
import { idOf, nameOf } from '../document/sockets';
import type { Cable, ModuleDoc } from '../document/types';
import { kindNamed } from '../kinds';
import { inSentence, optionLabel, paramLabel } from '../kinds/knobs';
import { figureText, showNumber, showVolts, withUnit } from '../units/show';
import type { Fault } from './faults';

/** A fault in words, as one would say it at the rack. */
export function faultText(modules: readonly ModuleDoc[], fault: Fault): string {
  const place = (socket: string): string => placeName(modules, socket);
  const cable = (c: Cable): string => `The cable from ${place(c.from)} to ${place(c.to)}`;
  const spec = (at: string) => kindNamed(modules.find((m) => m.id === idOf(at))?.kind ?? '')?.params[nameOf(at)];
  switch (fault.kind) {
    case 'cableMissing':
      return `${cable(fault.cable)} is missing or broken`;
    case 'cableElsewhere':
      return fault.end === 'from'
        ? `${cable(fault.cable)} comes from ${place(fault.socket)} instead`
        : `${cable(fault.cable)} goes to ${place(fault.socket)} instead`;
    case 'cablesSwapped':
      return `The cables to ${place(fault.cables[0].to)} and ${place(fault.cables[1].to)} are swapped`;
    case 'knob': {
      const found = spec(fault.at);
      const unit = found?.type === 'number' ? found.unit : '';
      return `${knobPlace(modules, fault.at)} is at ${withUnit(showNumber(fault.value, 2), unit)}`;
    }
    case 'jumper': {
      const value =
        typeof fault.value === 'boolean'
          ? fault.value
            ? 'on'
            : 'off'
          : optionLabel(spec(fault.at), fault.value as string | number);
      return `${place(idOf(fault.at))}: ${inSentence(paramLabel(nameOf(fault.at), spec(fault.at)))} is set to ${value}`;
    }
    case 'normalActs':
      return `The normal into ${place(fault.to)} (${'volts' in fault ? showVolts(fault.volts) : place(fault.from)}) still acts beside the cable`;
    case 'normalBroken':
      return `The normal into ${place(fault.to)} is broken`;
    case 'load':
      return `Something loads ${place(fault.at)} with ${figureText(Number(fault.ohms.toPrecision(2)), 'Ω')}`;
    case 'sourceRange':
      return `${place(fault.module)} has another range: ×${showNumber(fault.gain, 2)}${fault.volts === 0 ? '' : `, ${showVolts(fault.volts)}`}`;
    case 'dead':
      return `${place(fault.module)} gives nothing`;
    case 'gain':
      return `${place(fault.at)} is off by a factor of ${showNumber(fault.gain, 2)}`;
    case 'offset':
      return `${place(fault.at)} is off by ${showVolts(fault.volts)}`;
  }
}
