import { socketAt } from '../document/sockets';
import { freeId } from '../edit/editSequence';
import type { Edit } from '../edit/edit';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { Gate } from '../kinds/detect';
import type { Observer } from '../simulate/types';
import { showSeconds } from '../units/show';
import { cures, setCure, watching } from './finding';
import type { Cure, Found } from './finding';
import { FIX_IDS } from './insert';
import { inputNamed, sourceOf } from './paths';
import { median, stepperAt } from './steppers';
import type { Stepper } from './steppers';

/** A gate that is up for this many steps hangs, where the steps say nothing of gates. */
const STEPS = 2;

/** Follows an envelope's gate beside the clock of what makes its steps. */
class HangWatch implements Observer {
  readonly sockets: readonly string[];
  /** The longest time that the gate stayed up over the beginning of a step with a gate, samples. */
  over = 0;
  longest = 0;
  private readonly gate: Gate;
  private readonly clock: Gate;
  private readonly reset = new Gate(1);
  private readonly resets: boolean;
  private step = -1;
  private since = 0;
  private held = false;
  private lastEdge: number | null = null;
  private readonly lengths: number[] = [];

  constructor(
    readonly m: GraphModule,
    readonly input: GraphInput,
    readonly stepper: Stepper,
  ) {
    const { clock } = stepper;
    const reset = stepper.gates ? inputNamed(stepper.m, 'reset') : undefined;
    this.resets = reset?.connected ?? false;
    this.gate = new Gate(input.spec.threshold ?? 1);
    this.clock = new Gate(clock?.spec.threshold ?? 1);
    this.sockets = [input.socket, ...(clock ? [clock.socket] : []), ...(reset && this.resets ? [reset.socket] : [])];
  }

  block([x, clock, reset]: readonly Float64Array[], count: number, k0: number): void {
    for (let i = 0; i < count; i++) {
      const k = k0 + i;
      const rises = this.gate.rises((x as Float64Array)[i] as number);
      if (this.resets && reset && this.reset.rises(reset[i] as number)) this.step = -1;
      const begins = clock !== undefined && this.clock.rises(clock[i] as number) && this.begin(k);
      if (rises) {
        this.since = k;
        this.held = false;
      }
      if (!this.gate.high) continue;
      // Up before the step began, and still up: the note before it has not ended.
      if (begins && !rises) this.held = true;
      this.longest = Math.max(this.longest, k + 1 - this.since);
      if (this.held) this.over = Math.max(this.over, k + 1 - this.since);
    }
  }

  /** Whether the step that begins has a gate. */
  private begin(k: number): boolean {
    const { gates } = this.stepper;
    if (this.lastEdge !== null) this.lengths.push(k - this.lastEdge);
    this.lastEdge = k;
    if (!gates) return false;
    const before = this.step;
    this.step = (before + 1) % gates.length;
    // Steps joined by a tie are one note: the gate that goes on is meant.
    return (gates[this.step] ?? false) && !(before >= 0 && (this.stepper.ties?.[before] ?? false));
  }

  /** Samples of the longest gate that hangs; 0 where none does. */
  hangs(sampleRate: number): number {
    const { gates, clock, hertz } = this.stepper;
    if (gates) return this.over;
    const length = clock ? median(this.lengths) : sampleRate / hertz;
    return length !== null && this.longest >= STEPS * length ? this.longest : 0;
  }
}

/** What returns to zero between the steps: the sequencer's own gate, else what clocks them. */
function returning(graph: Graph, { m, clock, gates }: Stepper): string | undefined {
  if (gates) return socketAt(m.id, 'gate');
  return clock ? sourceOf(graph, clock)?.socket : undefined;
}

function multiplied(graph: Graph, { m, input, stepper }: HangWatch): Cure | null {
  const gate = returning(graph, stepper);
  const cable = graph.wiring.cableInto(input.socket);
  if (gate === undefined || !cable || cable.from === gate) return null;
  const id = freeId(graph.patch, FIX_IDS.gate);
  const edits: Edit[] = [
    { do: 'add', module: { id, kind: 'vca', label: 'Gate VCA' }, before: m.id },
    { do: 'plug', cable: { from: cable.from, to: socketAt(id, 'in') } },
    { do: 'plug', cable: { from: gate, to: socketAt(id, 'cv') } },
    { do: 'plug', cable: { from: socketAt(id, 'out'), to: input.socket } },
  ];
  return setCure('Multiply by the gate (adds a VCA)', ...edits);
}

export const hang = watching<HangWatch>({
  code: 'hang',
  title: 'Hanging note',
  why: 'A gate that stays high from one step to the next never releases, so the envelope stays open and notes hang. Multiply it by the step gate to end every note.',
  when: 'an envelope’s gate stays high across a clock edge at which a step with a gate begins that no tie joins to the one before or, where steps carry no gate, for two step lengths or more',
  cures: 'multiplies it by the sequencer’s gate or the clock (adds a VCA)',
  watch: (graph) =>
    graph.modules.flatMap((m) => {
      const input = m.kind.timing?.contour && inputNamed(m, m.kind.timing.contour.gate);
      const stepper = input?.driver.type === 'output' ? stepperAt(graph, input) : null;
      return input && stepper ? [new HangWatch(m, input, stepper)] : [];
    }),
  find({ graph }, watched) {
    return watched.flatMap((watch): Found[] => {
      const hangSeconds = watch.hangs(graph.sampleRate) / graph.sampleRate;
      if (hangSeconds === 0) return [];
      return [
        {
          code: 'hang',
          severity: 'warning',
          at: watch.input.socket,
          message: `${watch.m.label} hangs: its gate stays high for ${showSeconds(hangSeconds)}, across steps, with no gap between notes.`,
          numbers: { hangSeconds },
          cures: cures(multiplied(graph, watch)),
        },
      ];
    });
  },
});
