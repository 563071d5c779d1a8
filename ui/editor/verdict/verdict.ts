import {
  guaranteedApart,
  idOf,
  inSentence,
  isSetup,
  knobsOf,
  missText,
  modulesUpTo,
  paramLabel,
  partsOf,
  placeName,
  targetText,
} from '@/core';
import type { Finding, KnobSetting, Reading, Solution, TargetStanding } from '@/core';
import { readingText } from '@/ui/parts/readingText';
import type { Units } from '@/ui/parts/readingText';
import { standing } from '../targets/words';
import type { Predicted } from '@/ui/session/usePrediction';

export type Tone = 'good' | 'error' | 'warning' | 'plain';

/** What the line over the path says first, and the one thing to do about it. */
export interface Verdict {
  readonly place: string;
  readonly reading: string;
  /** What is asked for, or where the issue is. */
  readonly about: string;
  readonly says: string;
  readonly tone: Tone;
  readonly next:
    | { readonly do: 'apply'; readonly finding: Finding }
    | { readonly do: 'explain'; readonly finding: Finding }
    | { readonly do: 'solve' }
    | { readonly do: 'target' }
    | null;
}

/** The first words of an issue: what is the case, without why. */
const headOf = (message: string): string => (/^.*?[^\d](?=[:.](\s|$))/.exec(message)?.[0] ?? message).trim();

/** The worst issue of the path that leads to a destination; a prediction has the worst first. */
function worstOn({ graph, prediction }: Predicted, shown: string): Finding | undefined {
  const ids = modulesUpTo(graph, shown);
  return prediction.findings.find((f) => ids.has(idOf(f.at)));
}

function missedOf({ missed }: Predicted, shown: string): TargetStanding[] {
  return missed.filter((m) => m.target.at === shown).sort((a, b) => Number(a.met) - Number(b.met));
}

const issueNext = (finding: Finding): Verdict['next'] => ({ do: finding.cure ? 'apply' : 'explain', finding });

/**
 * What matters most of the destination shown: an error on its path; else how its target stands; else the worst issue
 * that is left.
 */
export function verdictOf(predicted: Predicted, shown: string, units?: Units): Verdict {
  const { modules } = predicted.graph.patch;
  const reading: Reading | null = predicted.prediction.readings.find((r) => r.at === shown) ?? null;
  const base = { place: placeName(modules, shown), reading: reading ? readingText(reading, units) : 'Not connected' };
  const worst = worstOn(predicted, shown);
  const [target] = missedOf(predicted, shown);
  const issue = (finding: Finding): Verdict => ({
    ...base,
    // The place shown stands over the reading already.
    about: finding.at === shown ? '' : placeName(modules, finding.at),
    says: headOf(finding.message),
    tone: finding.severity === 'error' ? 'error' : finding.severity === 'warning' ? 'warning' : 'plain',
    next: issueNext(finding),
  });
  if (worst?.severity === 'error') return issue(worst);
  // Of older documents: what is judged is not what the reading tells.
  const other =
    target && reading && 'quantity' in target.target && guaranteedApart(reading)
      ? !('basis' in target.target && target.target.basis === 'arrives')
      : false;
  const about = target ? `Target ${targetText(modules, target.target)}${other ? ' (guaranteed)' : ''}` : '';
  if (target && !target.met) {
    const miss = reading && missText(target.target, reading);
    const says =
      miss?.says ??
      (Number.isFinite(target.error)
        ? `Target missed: ${inSentence(standing(target, null))}`
        : 'Target can’t be evaluated');
    return { ...base, about, says, tone: 'error', next: { do: 'solve' } };
  }
  if (worst?.severity === 'warning') return issue(worst);
  if (target) return { ...base, about, says: 'Target met', tone: 'good', next: null };
  if (worst) return issue(worst);
  return { ...base, about: 'No target yet', says: '', tone: 'plain', next: { do: 'target' } };
}

/**
 * What applying a solution does, for its button: `Set Depth gain to 0.29`, `Set 3 knobs`; first what becomes of the
 * movement, where it is inverted or nearly ends.
 */
export function solutionLabel(
  { settings, jumpers, inverts, nearlyEnds }: Pick<Solution, 'settings' | 'jumpers' | 'inverts' | 'nearlyEnds'>,
  nameOf: (at: string) => string,
  show: (setting: KnobSetting) => string,
): string {
  const [only] = settings;
  const alone = settings.length === 1 && only && jumpers.length === 0;
  const set = alone ? `set ${nameOf(only.at)} to ${show(only)}` : `set ${settings.length + jumpers.length} knobs`;
  const first = inverts.length > 0 ? 'Invert: ' : nearlyEnds.length > 0 ? 'Nearly still: ' : '';
  return first ? first + set : `S${set.slice(1)}`;
}

/** A knob in brief: by its stage where that has no other, by its own name at the destination itself. */
export function knobShort({ graph }: Predicted, at: string, own: string): string {
  const { id, name } = partsOf(at);
  const m = graph.modules.find((x) => x.id === id);
  const label = m ? paramLabel(name, m.kind.params[name]) : at;
  if (!m || id === own) return label;
  const knobs = knobsOf(m.kind, m.params).filter((k) => !isSetup(m.kind, k.name));
  return knobs.length === 1 ? m.label : `${m.label} ${inSentence(label)}`;
}
