import { showNumber } from '../units/show';
import { inSentence } from '../kinds/knobs';
import { predict } from '../answers/predict';
import { readingFor } from '../answers/readings';
import type { Reading } from '../answers/readings';
import type { Rack } from '../document/rackTypes';
import type { Hand, Patch, Target } from '../document/types';
import { wantOf } from '../document/targets';
import { applyEdits } from '../edit/edit';
import type { Finding } from '../findings/finding';
import { kindTitle } from '../kinds';
import { channelLimits } from '../rack/limits';
import type { ChannelLimits } from '../rack/limits';
import { noiseVolts } from '../answers/noise';
import { BoundsEngine } from '../bounds/bounds';
import { buildGraph } from '../graph/graph';
import type { GraphInput } from '../graph/graph';
import { needsTrace } from '../solve/problem/errorOf';
import { solve } from '../solve/solve';
import { toleranceAt } from '../solve/explain/spread';
import { editsOf } from '../solve/types';
import type { SolveAnswer, Spread } from '../solve/types';
import { takenBy } from './assign';
import type { Short } from './assign';
import { swept, sweepOf, unswept } from './sweep';
import { candidatesFor } from './candidates';
import type { Candidate } from './candidates';
import { chained, freeOf } from './chain';
import type { ProposedStage } from './chain';
import { goesWith } from './direction';
import { startOf } from './request';
import type { PlanRequest } from './request';
import { channelsFor, sequencesOf } from './sequences';
import { withStageFlipped } from './flipped';

export interface Proposal {
  readonly stages: readonly ProposedStage[];
  readonly patch: Patch;
  readonly reading: Reading | null;
  readonly error: number;
  readonly met: boolean;
  readonly tolerance: Spread | null;
  /** Codes of the errors and warnings that it brings. */
  readonly warns: readonly string[];
  /** The channels that it takes, or the kinds without a rack. */
  readonly uses: readonly string[];
  readonly why: string;
}

export interface Plan {
  /** Best first; where nothing meets what is wanted the nearest, not met. */
  readonly proposals: readonly Proposal[];
  /** Modules of the patch itself, source and destination among them, for which the rack has no channel. */
  readonly short: readonly Short[];
}

/** Chains that are tried at most; those that only a trace tells of take longer each. */
const TRIES = { bounded: 46, traced: 4 } as const;
const MOST = 5;
/** Where all chains miss, how many are solved once more, thoroughly. */
const CAREFUL = 3;
/** To tell which of a few chains is the steadiest. */
const DRAWS = 120;
/** Once this many chains do, longer ones are not tried. */
const ENOUGH = 4;

interface Tried {
  readonly chain: readonly Candidate[];
  readonly build: number;
  readonly stages: readonly ProposedStage[];
  readonly patch: Patch;
  readonly answer: SolveAnswer;
  readonly met: boolean;
  readonly error: number;
}

/** Errors and warnings, each with its place. */
const alarmsIn = (findings: readonly Finding[]): string[] =>
  findings.filter((f) => f.severity !== 'note').map((f) => `${f.code} ${f.at}`);

/** Looks for chains of one request. */
class Planner {
  private readonly start: ReturnType<typeof startOf>;
  private readonly target: Target;
  /** Where the chain begins at a fader: it counts over its way. */
  private readonly sweep: Hand | null;
  /** What is wrong with the patch before any chain. */
  private readonly alarmed: ReadonlySet<string>;
  private tries = 0;

  constructor(
    private readonly request: PlanRequest,
    private readonly rack: Rack | null,
  ) {
    const start = startOf(request);
    this.sweep = sweepOf(start.patch, start.from);
    this.start = { ...start, patch: swept(start.patch, this.sweep) };
    this.target = { ...request.target, at: this.start.to } as Target;
    this.alarmed = new Set(alarmsIn(predict(start.patch, { simulation: false }).findings));
  }

  run(): Plan {
    const { patch } = this.start;
    const taken = this.rack ? takenBy(patch, this.rack) : null;
    const candidates = candidatesFor(wantOf(this.target), this.rack, taken?.channels ?? new Set());
    const limit = this.remembers(patch) ? TRIES.traced : TRIES.bounded;
    const met: Tried[] = [];
    const missed: Tried[] = [];
    for (let length = 0; length <= (this.request.stages ?? 4); length++) {
      for (const chain of sequencesOf(candidates, length)) {
        if (this.tries >= limit) break;
        const tried = this.best(chain);
        if (tried) (tried.met ? met : missed).push(tried);
      }
      if (met.length >= ENOUGH || this.tries >= limit) break;
    }
    missed.sort((a, b) => a.error - b.error);
    // A quick look may miss what takes several knobs at once: the nearest are looked at with all care.
    if (met.length === 0) met.push(...missed.slice(0, CAREFUL).flatMap((t) => this.carefully(t)));
    const found = distinct(met.length > 0 ? met : missed.slice(0, 2));
    const told = found.slice(0, MOST).map((t) => this.told(t));
    return { proposals: ranked(told, candidates), short: taken?.short ?? [] };
  }

  /** A chain with the plainest build that does. */
  private best(chain: readonly Candidate[]): Tried | null {
    const most = Math.max(1, ...chain.map((c) => c.builds.length));
    let nearest: Tried | null = null;
    for (let build = 0; build < most; build++) {
      const tried = this.once(chain, build);
      if (!nearest || tried.met || tried.error < nearest.error) nearest = tried;
      if (tried.met) break;
    }
    return nearest;
  }

  /** A chain that misses, solved thoroughly; none where it still does. */
  private carefully({ stages, build, chain }: Tried): Tried[] {
    if (stages.length === 0) return [];
    const again = this.once(chain, build, false);
    return again.met ? [again] : [];
  }

  private once(chain: readonly Candidate[], build: number, quick = true): Tried {
    this.tries++;
    const places = channelsFor(chain) ?? [];
    const stages = chain.map((c, i): ProposedStage => {
      const params = c.builds[Math.min(build, c.builds.length - 1)] ?? {};
      return { kind: c.kind, params, rack: places[i]?.name ?? null, standIn: c.standIn };
    });
    const { from, to, patch: base } = this.start;
    const { patch, ids } = chained(base, { from, to }, stages);
    const channels = this.rack && channelLimits(patch, this.rack);
    const straight = this.solved(patch, ids, channels, quick);
    // The right range, but the wrong way round: from an inverted stage the knobs may lead there.
    const ways = straight.answer.feasible && !straight.way ? withStageFlipped(straight.patch, ids, channels) : [];
    const over = ways.map((p) => this.solved(p, ids, channels, quick)).find((s) => s.answer.feasible && s.way);
    const { answer, best, patch: solved, way } = over ?? straight;
    const settled = stages.map((s, i): ProposedStage => {
      const params = solved.modules.find((m) => m.id === ids[i])?.params ?? {};
      return { ...s, params };
    });
    return {
      chain,
      build,
      stages: settled,
      patch: { ...solved, targets: withTarget(solved.targets, this.target) },
      answer,
      met: answer.feasible && way,
      error: (best?.targets[0]?.error ?? 1e9) + (way ? 0 : 1e6),
    };
  }

  /** The knobs of a chain for what is wanted, and whether it goes the way that is asked for. */
  private solved(patch: Patch, ids: readonly string[], channels: ChannelLimits | null, quick: boolean) {
    const { from, to } = this.start;
    const options = {
      ...(quick ? { live: true } : { plain: true }),
      free: freeOf(patch, ids, to),
      ...(channels && { channels }),
    };
    const answer = solve(patch, options, [this.target]);
    const best = answer.solutions[0] ?? answer.nearest;
    const there = best ? applyEdits(patch, editsOf(best)) : patch;
    return { answer, best, patch: there, way: goesWith(there, from, to, this.request.direction ?? null) };
  }

  /** Whether what is wanted can only be told of a patch by running it. */
  private remembers(patch: Patch): boolean {
    return needsTrace(buildGraph(patch), this.target);
  }

  private told({ stages, patch, answer, met, error }: Tried): Proposal {
    const standing = unswept(patch, this.sweep);
    const { findings } = predict(standing, { simulation: false });
    const warns = alarmsIn(findings).filter((alarm) => !this.alarmed.has(alarm));
    const remembers = this.remembers(patch);
    const arriving = predict(patch, remembers ? { cures: false } : { simulation: false }).readings;
    const spread = remembers ? undefined : toleranceAt(patch, [this.target], DRAWS)[0];
    const kinds = stages.map((s) => s.kind);
    return {
      stages,
      patch: standing,
      reading: readingFor(arriving, this.target),
      error,
      met,
      tolerance: spread ?? null,
      warns: [...new Set(warns.map((alarm) => alarm.split(' ')[0] ?? alarm))],
      uses: stages.map((s) => s.rack ?? s.kind),
      why: whyOf(kinds, met, answer),
    };
  }
}

const withTarget = (targets: readonly Target[], target: Target): readonly Target[] => [
  ...targets.filter((t) => t.at !== target.at || t.id !== target.id),
  target,
];

function whyOf(kinds: readonly string[], met: boolean, answer: SolveAnswer): string {
  const what =
    kinds.length === 0
      ? 'the destination’s own knobs only'
      : kinds.map((k) => inSentence(kindTitle(k))).join(', then ');
  if (met) return `${what}: ${answer.solutions[0]?.why ?? ''}`;
  const out = answer.limits[0];
  return out ? `${what}: closest match; ${out.at} stops at ${showNumber(out.limit, 2)}` : `${what}: closest match`;
}

/** The first of each sequence of kinds. */
function distinct(list: readonly Tried[]): Tried[] {
  const seen = new Set<string>();
  return list.filter(({ stages }) => {
    const key = stages.map((s) => s.kind).join(' ');
    return !seen.has(key) && seen.add(key);
  });
}

/** How wide what hands are off by makes it. */
const widthOf = ({ tolerance }: Proposal): number =>
  tolerance ? tolerance.low[1] - tolerance.low[0] + (tolerance.high[1] - tolerance.high[0]) : 0;

/** What the stages on the way to the destination add of their own, volts RMS. */
function noiseOfProposal({ patch, reading }: Proposal): number {
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  const middle = (input: GraphInput): number => {
    const m = graph.modules.find((x) => x.inputs.includes(input));
    const [lo, hi] = (m && bounds.get(m.id)?.inputs[m.inputs.indexOf(input)]) ?? [0, 0];
    return (lo + hi) / 2;
  };
  return reading ? noiseVolts(graph, reading.at, middle) : 0;
}

/** Met first, then what brings no error or warning, then the fewest stages, then the steadiest, then the quietest, then what leaves the rarer channels free. */
function ranked(list: readonly Proposal[], candidates: readonly Candidate[]): Proposal[] {
  const rarity = ({ uses }: Proposal): number =>
    uses.reduce((sum, name) => {
      const of = candidates.find((c) => c.places?.some((p) => p.name === name));
      return sum + (of?.places ? 1 / of.places.length : 0);
    }, 0);
  const noise = new Map(list.map((p) => [p, noiseOfProposal(p)] as const));
  return list.toSorted((a, b) => {
    if (a.met !== b.met) return a.met ? -1 : 1;
    if (a.warns.length > 0 !== b.warns.length > 0) return a.warns.length > 0 ? 1 : -1;
    if (!a.met && Math.abs(a.error - b.error) > 1e-9) return a.error - b.error;
    if (a.stages.length !== b.stages.length) return a.stages.length - b.stages.length;
    const [x, y] = [widthOf(a), widthOf(b)];
    if (Math.abs(x - y) > 0.02 * Math.max(x, y)) return x - y;
    const [quiet, loud] = [noise.get(a) ?? 0, noise.get(b) ?? 0];
    if (Math.abs(quiet - loud) > 0.02 * Math.max(quiet, loud)) return quiet - loud;
    return rarity(a) - rarity(b);
  });
}

/** Chains that make a target arrive, from a source to a destination; with a rack, from its free channels alone. */
export const planChain = (request: PlanRequest, rack: Rack | null = null): Plan => new Planner(request, rack).run();
