import { idOf, nameOf, socketAt } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import type { Graph, GraphModule } from '../graph/graph';
import { soundOf } from '../graph/sound';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Ears } from './ears';

/** A voice put in where a voltage ends without a sound, for listening alone. */
export interface TestVoice {
  /** The patch with the voice beside it. */
  readonly patch: Patch;
  readonly ears: Ears;
  /** What it does, in one line. */
  readonly says: string;
}

type Voiced = 'pitch' | 'brightness' | 'loudness';

const partFor = (quantity: EndSpec<ParamValues>['quantity']): Voiced =>
  quantity === 'frequency' || quantity === 'note'
    ? 'pitch'
    : quantity === 'gain' || quantity === 'level'
      ? 'loudness'
      : 'brightness';

/** Adds modules beside a patch, under names that are free. */
class Beside {
  private readonly edits: Edit[] = [];
  private taken: Pick<Patch, 'modules'>;

  constructor(private readonly patch: Patch) {
    this.taken = patch;
  }

  add(kind: string, params: ParamValues): string {
    const id = freeId(this.taken, 'hear');
    const doc: ModuleDoc = { id, kind, label: 'Test voice', params };
    this.taken = { modules: [...this.taken.modules, doc] };
    this.edits.push({ do: 'add', module: doc });
    return id;
  }

  plug(from: string, to: string): void {
    this.edits.push({ do: 'plug', cable: { from, to } });
  }

  done(): Patch {
    return applyEdits(this.patch, this.edits);
  }
}

/** Two tones a little apart, through a mixer; what is plugged in moves their pitch. */
function tones(beside: Beside, pitch: string | null): string {
  const mix = beside.add('mixer', { inputs: 2, gain1: 0.5, gain2: 0.5 });
  [220, 220.9].forEach((baseHz, i) => {
    const id = beside.add('oscillator', { baseHz });
    if (pitch) beside.plug(pitch, socketAt(id, 'pitch'));
    beside.plug(socketAt(id, 'saw'), socketAt(mix, `in${i + 1}`));
  });
  return socketAt(mix, 'out');
}

/** The voice that a voltage moves one part of. */
function voice(beside: Beside, volts: string, part: Voiced): string {
  const sound = tones(beside, part === 'pitch' ? volts : null);
  const filter = beside.add('filter', { cutoffHz: part === 'brightness' ? 220 : 1800, resonance: 0.2 });
  beside.plug(sound, socketAt(filter, 'in'));
  if (part === 'brightness') beside.plug(volts, socketAt(filter, 'cutoff'));
  const amp = beside.add('vca', part === 'loudness' ? { cvAmount: 1 } : { bias: 5 });
  beside.plug(socketAt(filter, 'lowpass'), socketAt(amp, 'in'));
  if (part === 'loudness') beside.plug(volts, socketAt(amp, 'cv'));
  return socketAt(amp, 'out');
}

const WORDS: Readonly<Record<Voiced, string>> = {
  pitch: 'the CV plays the pitch of two tones, 1 V/oct from 220 Hz',
  brightness: 'the CV opens a filter on two tones, 1 V/oct from 220 Hz',
  loudness: 'the CV opens a VCA on two tones, fully open at 5 V',
};

const AFTER = '. For auditioning only; not part of the patch.';

/** Sound for a destination that could pass some and has none: two tones in, heard behind it. */
function through(beside: Beside, m: GraphModule): { readonly out: string; readonly says: string } | null {
  const free = m.inputs.filter((s) => s.spec.role === 'signal' && !s.connected && s.spec.name !== 'chain');
  const [first, second] = free;
  const output = m.outputs[0];
  // What neither amplifies nor filters makes nothing of a sound.
  if (!first || !output || (!m.kind.stage?.gains && !m.kind.sound?.audioRate)) return null;
  if (second && m.kind.stage?.gains && m.kind.stage.gains.length > 1) {
    // Between two tones.
    beside.plug(tones(beside, null), first.socket);
    const other = beside.add('oscillator', { baseHz: 330 });
    beside.plug(socketAt(other, 'triangle'), second.socket);
    return { out: socketAt(m.id, 'out'), says: `a low and a higher tone pass ${m.label}` };
  }
  if (m.kind.sound?.feedback) {
    const beat = beside.add('clock', { bpm: 60, width: 0.1 });
    const shape = beside.add('envelope', { mode: 'ad', attack: 0.002, decay: 0.12 });
    const amp = beside.add('vca', { cvAmount: 1 });
    beside.plug(socketAt(beat, 'out'), socketAt(shape, 'gate'));
    beside.plug(tones(beside, null), socketAt(amp, 'in'));
    beside.plug(socketAt(shape, 'out'), socketAt(amp, 'cv'));
    beside.plug(socketAt(amp, 'out'), first.socket);
    return { out: output.socket, says: `a short note each second passes ${m.label}` };
  }
  beside.plug(tones(beside, null), first.socket);
  return { out: output.socket, says: `two tones through ${m.label}` };
}

const heard = (socket: string): Ears => ({ left: socket, right: socket, gain: 1, says: 'Test voice' });

/**
 * A voice for a destination, or for an output, that nobody could hear otherwise; null where there is sound behind it,
 * or nothing arrives.
 *
 * @param at a socket of the patch.
 */
export function testVoice(graph: Graph, at: string): TestVoice | null {
  const m = graph.modules.find((x) => x.id === idOf(at));
  if (!m || m.kind.sound?.audible || soundOf(graph).modules.has(m.id)) return null;
  const beside = new Beside(graph.patch);
  const name = nameOf(at);
  if (m.outputs.some((o) => o.name === name)) {
    const part = m.kind.source?.notes?.(name, m.label)
      ? 'pitch'
      : m.kind.timing?.gates?.includes(name)
        ? 'loudness'
        : 'brightness';
    return { ears: heard(voice(beside, at, part)), says: `${WORDS[part]}${AFTER}`, patch: beside.done() };
  }
  const end = m.kind.ends?.find((e) => e.sockets.includes(name));
  const passed = through(beside, m);
  if (passed) return { ears: heard(passed.out), says: `${passed.says}${AFTER}`, patch: beside.done() };
  const driver = m.inputs.find((s) => s.socket === at)?.driver;
  if (driver?.type !== 'output') return null;
  const source = graph.modules[driver.module]?.outputs[driver.output]?.socket;
  if (!source) return null;
  const part = end ? partFor(end.quantity) : 'brightness';
  return { ears: heard(voice(beside, source, part)), says: `${WORDS[part]}${AFTER}`, patch: beside.done() };
}
