import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { endsOf, stripTo } from '../graph/strip';
import { placeName } from '../document/names';
import { distanceOf } from './distance';
import { markByDistance } from './exercise';
import type { KnownSlip, Mark } from './exercise';
import { stepsTo } from './explainStage';
import { Seen } from './seen';
import type { Answer, Ask } from './types';

/** A question about a patch of one's own, stage by stage. */
export interface PatchQuestion {
  readonly ask: Ask;
  /** The destination whose path it is on. */
  readonly end: string;
}

/** Paths of a patch that are asked about, and questions on each, at most. */
const MOST_PATHS = 4;
const MOST_ON_A_PATH = 6;
/** What hardly moves is asked about as a voltage, volts. */
const STEADY = 0.02;

const readable = new Set(['V', 'Hz', 'dB', '%', 's']);

/** What is asked of a range, or of a voltage where it stands still. */
function askVolts(seen: Seen, at: string, doing: string): Ask {
  const [low, high] = seen.range(at);
  const still = high - low < STEADY;
  return {
    text: `What ${still ? 'voltage' : 'range'} ${doing}?`,
    at,
    answer: still ? 'volts' : 'range',
    figure: still ? 'high' : null,
    unit: 'V',
    choices: null,
    knobs: null,
    hidden: [],
  };
}

/** Stages of control on the way to a destination, in their order; sound itself is not asked about. */
function questionsTo(seen: Seen, end: string): PatchQuestion[] {
  const { graph } = seen;
  const frames = (stripTo(graph, end)?.frames ?? []).filter((f) => f.output !== null && f.input !== null);
  const names = (at: string): string => placeName(graph.patch.modules, at);
  const stages = frames.slice(0, MOST_ON_A_PATH).map(({ output }): Ask => {
    const at = output as string;
    return askVolts(seen, at, `leaves ${names(idOf(at))}`);
  });
  const reading = seen.reading(end);
  const inVolts = frames.length === 0 ? [askVolts(seen, end, `arrives at ${names(end)}`)] : [];
  const inUnit =
    reading &&
    reading.arrivesLow !== null &&
    reading.arrivesHigh !== null &&
    readable.has(reading.unit) &&
    reading.unit !== 'V'
      ? [
          {
            text: `How high does ${names(end)} get?`,
            at: end,
            answer: 'unit' as const,
            figure: reading.quantity,
            unit: reading.unit,
            choices: null,
            knobs: null,
            hidden: [],
          },
        ]
      : [];
  const asks: Ask[] = [...stages, ...inVolts, ...inUnit];
  // What is asked about later stays covered: it would tell what comes before it.
  const sockets = [...frames.flatMap((f) => f.output ?? []), end];
  return asks.map((ask) => ({
    ask: { ...ask, hidden: sockets.slice(Math.max(0, sockets.indexOf(ask.at ?? end))) },
    end,
  }));
}

function truthOf({ ask }: PatchQuestion, seen: Seen): Answer | null {
  const at = ask.at ?? '';
  const [low, high] = seen.range(at);
  if (ask.answer === 'range') return { low, high };
  if (ask.answer === 'volts') return { value: high };
  const value = seen.reading(at, ask.figure ?? undefined)?.arrivesHigh ?? null;
  return value === null ? null : { value };
}

/** Mistakes that can be made with any stage: each as the patch that was answered for. */
function slipsAt(patch: Patch, at: string): { readonly text: string; readonly edits: readonly Edit[] }[] {
  const module = patch.modules.find((m) => m.id === idOf(at));
  const set = (param: string, value: number): Edit => ({ do: 'set', module: idOf(at), param, value });
  const amount = Number(module?.params?.amount ?? Number.NaN);
  const volts = Number(module?.params?.volts ?? 0);
  const label = module?.label ?? idOf(at);
  const order = module?.params?.order === 'shiftThenScale' ? 'scaleThenShift' : 'shiftThenScale';
  const scales = ['attenuator', 'attenuverter', 'offset'].includes(module?.kind ?? '');
  return [
    ...(scales && Number.isFinite(amount) && amount !== 1
      ? [{ text: `That is without ${label}’s gain.`, edits: [set('amount', 1)] }]
      : []),
    ...(scales && amount < 0 ? [{ text: 'That forgets the sign.', edits: [set('amount', -amount)] }] : []),
    ...(module?.kind === 'offset' && volts !== 0
      ? [
          { text: `That forgets ${label}’s offset.`, edits: [set('volts', 0)] },
          {
            text:
              order === 'shiftThenScale'
                ? 'That adds the offset before the gain.'
                : 'That adds the offset after the gain.',
            edits: [{ do: 'set', module: idOf(at), param: 'order', value: order } as Edit],
          },
        ]
      : []),
  ];
}

/** A patch of one’s own, its readings covered and asked about. */
export class OwnPatch {
  private readonly seen: Seen;
  /** What leaves each stage on the way to its destinations, and what it comes to there; none where nothing is driven. */
  readonly questions: readonly PatchQuestion[];

  constructor(private readonly patch: Patch) {
    this.seen = new Seen(patch);
    const control = endsOf(this.seen.graph).filter((end) => {
      const reading = this.seen.reading(end);
      return reading !== null && reading.quantity !== 'level';
    });
    this.questions = control
      .slice(0, MOST_PATHS)
      .flatMap((end) => questionsTo(this.seen, end))
      .filter((q) => truthOf(q, this.seen) !== null);
  }

  /** Marks an answer to a question. @throws where there is no such question. */
  mark(index: number, answer: Answer): Mark {
    const { patch, seen } = this;
    const question = this.questions[index];
    const truth = question && truthOf(question, seen);
    if (!question || !truth) throw new Error(`there is no question ${index}`);
    const { ask } = question;
    const at = ask.at ?? question.end;
    return markByDistance(ask, patch, answer, {
      truth,
      slips: this.slips(question, truth, at),
      steps: stepsTo(seen, at),
    });
  }

  private slips(question: PatchQuestion, truth: Answer, at: string): KnownSlip[] {
    return slipsAt(this.patch, at).flatMap(({ text, edits }) => {
      const answer = truthOf(question, new Seen(applyEdits(this.patch, edits), { only: [at] }));
      return answer && distanceOf(question.ask, this.patch, answer, truth).times > 1 ? [{ text, answer }] : [];
    });
  }
}
