import { allKinds, kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import {
  byDefault,
  choice,
  constant,
  either,
  id,
  list,
  map,
  module,
  number,
  optional,
  record,
  socket,
  text,
  typed,
  whole,
} from './fields';
import type { ValueOf } from './fields';
import { controlsField } from './controls';
import { handsField } from './hands';
import { macrosField } from './macros';
import { normalBetween, oneNormalEach } from './normals';
import { paramsField } from './paramFields';
import { completeParams } from './params';
import type { RealModule } from './real';
import { own, Reader, shown } from './reader';
import { onlyOnce, readField } from './readField';
import { targetField } from './targets';
import { LIMITS, NOISE, OHMS } from './limits';
import type { Json } from './result';

/** What a patch document holds, each field declared once. */

const settings = record({
  railVolts: byDefault(number(5, 24), 12),
  sampleRate: byDefault(
    either([constant('auto'), number(1000, 192_000)], (x) => (x === 'auto' ? 0 : 1)),
    'auto',
  ),
  duration: byDefault(number(0.01, 120), 8),
  seed: byDefault(whole(0, 4_294_967_295), 1),
  loading: byDefault(choice(['electrical', 'ideal']), 'electrical'),
  bpm: byDefault(number(1, 999), 120),
});
export type Settings = ValueOf<typeof settings>;
/** Limits and defaults of the settings. */
export const SETTINGS = settings.fields;
export const usualSettings: Settings = readField(new Reader(), settings, {}, 'settings');

/** A module of a kind. */
const moduleOf = (kind: Kind) =>
  record(
    {
      id,
      kind: constant(kind.name),
      label: optional(text(LIMITS.label)),
      /** Only what differs from the defaults. */
      params: optional(typed<ParamValues>(paramsField(kind))),
      locked: optional(list(choice(Object.keys(kind.params)), 64)),
      outputOhms: optional(map(number(0, OHMS.max))),
      inputOhms: optional(map(number(1, OHMS.max))),
      /** What each of its outputs adds by itself, RMS. */
      noiseMicrovolts: optional(number(0, NOISE.most)),
      /** `moduleId/channelId` of the rack. */
      rack: optional(text(200)),
    },
    { says: `${kind.title}: ${kind.does}. ${kind.formula}` },
  );
/** As a document has it; `real` only where a patch is looked at as its rack really is. */
export type ModuleDoc = ValueOf<ReturnType<typeof moduleOf>> & { readonly real?: RealModule };

const anyModule = typed<ModuleDoc>({
  type: 'tagged',
  key: 'kind',
  of: new Map(allKinds.map((kind) => [kind.name, moduleOf(kind)])),
  unknown(r, given, path) {
    const name = r.text(own(given, 'kind'), `${path}.kind`, 40);
    if (typeof own(given, 'kind') === 'string') r.fail(`${path}.kind`, `there is no kind ${shown(name)}`);
    return { id: readField(r, id, own(given, 'id'), `${path}.id`), kind: name };
  },
});

/** Takes note of a module that was read, for what refers to it. */
function note(r: Reader, m: ModuleDoc, path: string): void {
  if (r.sockets.has(m.id)) r.fail(`${path}.id`, `is used twice: ${m.id}`);
  const kind = kindNamed(m.kind);
  const complete = kind && completeParams(kind, m.params);
  const inputs = new Set(kind && complete ? kind.inputs(complete).map((s) => s.name) : []);
  const outputs = new Set(kind && complete ? kind.outputs(complete) : []);
  if (kind && m.outputOhms) r.known(m.outputOhms, `${path}.outputOhms`, [...outputs]);
  if (kind && m.inputOhms) r.known(m.inputOhms, `${path}.inputOhms`, [...inputs]);
  if (r.sockets.has(m.id)) return;
  r.sockets.set(m.id, { inputs, outputs });
  r.modules.push(m);
}

/** Makes modules known that are not read from a document: what is read next may refer to them. */
export const noteModules = (r: Reader, modules: readonly ModuleDoc[]): void =>
  modules.forEach((m, i) => note(r, m, `modules[${i}]`));

const cable = record({ from: socket('output'), to: socket('input') });
export type Cable = ValueOf<typeof cable>;

const normal = normalBetween(socket('input'), socket('any'));
/** What an input carries while nothing is plugged into it. */
export type Normal = ValueOf<typeof normal>;

const probe = record({ at: socket('any'), label: optional(text(LIMITS.label)) });
export type Probe = ValueOf<typeof probe>;

const dismissal = record({ code: text(40), at: text(100), reason: text(500) });
export type Dismissal = ValueOf<typeof dismissal>;

const bypass = record(
  { module, cables: byDefault(list(cable, LIMITS.cables), []) },
  { says: 'stages that are out of their path for now, with the cables that put them back' },
);
/** A stage that is out of its path for now, and the cables that put it back. */
export type Bypass = ValueOf<typeof bypass>;

/** What a variant keeps: all that can be heard or measured, and nothing that only concerns the editor. */
export const stateField = record({
  settings: byDefault(settings, usualSettings),
  modules: byDefault(list(anyModule, LIMITS.modules, { each: note }), []),
  cables: byDefault(
    list(cable, LIMITS.cables, {
      check: onlyOnce(
        (c) => c.to,
        '.to',
        (to) => `${to} already has a cable; an input takes one (add a mixer or a junction)`,
      ),
    }),
    [],
  ),
  normals: byDefault(list(normal, LIMITS.normals, { check: oneNormalEach }), []),
  targets: byDefault(list(targetField, LIMITS.targets), []),
  hands: handsField,
  /** Left out by documents from before there were any: told from labels. */
  macros: optional(macrosField),
});
export type PatchState = Required<ValueOf<typeof stateField>>;

/** A state of the patch that is kept under a name. */
export const variantField = record(
  { name: text(LIMITS.label), ...stateField.fields },
  { says: 'states of the patch that are kept under a name' },
);
export type Variant = Required<ValueOf<typeof variantField>>;

/** The document, but for its variants: each of them is read as a patch of its own. */
export const patchField = record({
  name: byDefault(text(LIMITS.name), 'Untitled'),
  notes: byDefault(text(LIMITS.notes), ''),
  ...stateField.fields,
  probes: byDefault(list(probe, LIMITS.probes), []),
  order: byDefault(list(module, LIMITS.modules), []),
  dismissed: byDefault(list(dismissal, LIMITS.dismissed), []),
  bypassed: byDefault(list(bypass, LIMITS.modules), []),
  controls: controlsField,
});

type Said = Required<ValueOf<typeof patchField>>;

export interface Patch extends Said {
  readonly format: 'fenvo.patch';
  readonly version: 1;
  readonly variants: readonly Variant[];
  /** Top-level keys that this version does not know, kept as they were. */
  readonly extra: Readonly<Record<string, Json>>;
}
