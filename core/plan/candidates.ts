import { placesOf } from '../document/rackTypes';
import type { RackPlace, Rack } from '../document/rackTypes';
import type { Want } from '../document/targets';
import type { ParamValues } from '../kinds/params';
import { channelSettings } from '../rack/holds';

/** A stage that a chain could have: without a rack, one of a kind; with one, a channel of those that are alike. */
export interface Candidate {
  readonly kind: string;
  /** Settings to begin with, the plainest first; each reaches further than the one before. */
  readonly builds: readonly ParamValues[];
  /** The channels that are alike, in the rack's order; null without a rack. */
  readonly places: readonly RackPlace[] | null;
  /** What it stands in for, in words; null where it is what one would take. */
  readonly standIn: string | null;
}

interface Stage {
  readonly kind: string;
  readonly builds: readonly ParamValues[];
  readonly standIn: string | null;
}

/** What scales, inverts and offsets, the plainest first; what must be open to pass something starts open. */
const SCALING: readonly Stage[] = [
  {
    kind: 'offset',
    builds: [{}, { maxAmount: 2 }, { maxAmount: 4, lowVolts: -12, highVolts: 12 }],
    standIn: null,
  },
  { kind: 'attenuverter', builds: [{ amount: 1 }, { maxAmount: 2, amount: 1 }], standIn: null },
  { kind: 'attenuator', builds: [{}], standIn: null },
  { kind: 'inverter', builds: [{}], standIn: null },
  {
    kind: 'mixer',
    builds: [{ inputs: 2 }, { inputs: 2, bipolar: true, maxGain: 2 }],
    standIn: 'a mixer with one input used can scale; its offset knob adds the offset',
  },
  {
    kind: 'polarizer',
    builds: [{}],
    standIn: 'a polarizer without modulation scales and inverts, and its bias adds an offset',
  },
];
const HALVING: readonly Stage[] = [{ kind: 'rectifier', builds: [{}, { mode: 'positive' }], standIn: null }];
const GATING: readonly Stage[] = [{ kind: 'comparator', builds: [{}], standIn: null }];
const SMOOTHING: readonly Stage[] = [{ kind: 'slew', builds: [{ rise: 0.1, fall: 0.1 }], standIn: null }];
const BENDING: readonly Stage[] = [{ kind: 'shaper', builds: [{}], standIn: null }];

/** What a chain for each want may be made of. */
const STAGES: Readonly<Record<Want, readonly Stage[]>> = {
  range: [...SCALING, ...HALVING],
  within: [...SCALING, ...HALVING],
  span: [...SCALING, ...HALVING],
  mean: SCALING,
  opposite: SCALING,
  same: SCALING,
  steps: [...GATING, ...SCALING],
  duty: [...GATING, ...SCALING],
  fall: [...SMOOTHING, ...SCALING],
  dip: SCALING,
  arrive: SMOOTHING,
  like: [...SMOOTHING, ...HALVING, ...BENDING],
};

/** How a channel begins as a stage: what it can be set to of each build. */
function buildsOn({ channel }: RackPlace, { kind, builds }: Stage): ParamValues[] {
  const mode = channel.modes.find((m) => m.kind === kind);
  if (!mode) return [];
  const found = builds.flatMap((build) => {
    const held = channelSettings(mode, build);
    if (held.ok) return [held.params];
    // What it cannot be built as, it has as it is; only what must be open is asked for.
    const plain = channelSettings(mode, 'amount' in build ? { amount: build.amount ?? 1 } : {});
    return plain.ok ? [plain.params] : [];
  });
  const texts = found.map((params) => JSON.stringify(params));
  return found.filter((_, i) => texts.indexOf(texts[i] ?? '') === i);
}

/** A stage's channel must carry nothing of its own where the chain is plugged: its other sockets stay empty. */
const classOf = ({ channel }: RackPlace, kind: string): string =>
  JSON.stringify([kind, channel.modes.find((m) => m.kind === kind), channel.normals]);

/** The stages that a chain may be made of, of what a rack has left where there is one. */
export function candidatesFor(want: Want, rack: Rack | null, taken: ReadonlySet<string>): Candidate[] {
  const stages = STAGES[want];
  if (!rack) return stages.map((s) => ({ ...s, places: null }));
  const free = placesOf(rack).filter((p) => !taken.has(p.name));
  return stages.flatMap((stage) => {
    const classes = new Map<string, RackPlace[]>();
    for (const place of free) {
      if (!place.channel.modes.some((m) => m.kind === stage.kind)) continue;
      const key = classOf(place, stage.kind);
      classes.set(key, [...(classes.get(key) ?? []), place]);
    }
    return [...classes.values()].flatMap((places): Candidate[] => {
      const [first] = places;
      const builds = first ? buildsOn(first, stage) : [];
      return builds.length > 0 ? [{ ...stage, builds, places }] : [];
    });
  });
}
