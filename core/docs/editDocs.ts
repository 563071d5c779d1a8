import { blank } from '../document/parse';
import type { Edit } from '../edit/edit';

const { settings } = blank;

interface Word {
  readonly says: string;
  /** Worked on the patch that the page begins with. */
  readonly example: Edit;
}

/** Every word of edits, what it does, and an example. */
export const editWords = {
  set: {
    says: 'Sets a parameter; without `value` it is reset to its default. Parameters whose limits depend on it are clamped.',
    example: { do: 'set', module: 'trim', param: 'amount', value: 0.4 },
  },
  add: {
    says: 'Adds a module, before another in the list, or at its end.',
    example: { do: 'add', module: { id: 'turn', kind: 'inverter' }, before: 'tone' },
  },
  replace: {
    says: 'Replaces a module’s settings, label or kind, keeping its id. Cables stay where the sockets still exist.',
    example: { do: 'replace', module: { id: 'trim', kind: 'attenuverter', params: { amount: -0.5 } } },
  },
  remove: {
    says: 'Removes a module with its cables, normals, targets and probes.',
    example: { do: 'remove', id: 'trim' },
  },
  move: {
    says: 'Moves a module before another in the list. A feedback loop is cut at the first of its modules in the list.',
    example: { do: 'move', id: 'tone', before: 'swell' },
  },
  label: { says: 'Names a module.', example: { do: 'label', module: 'trim', label: 'Breath' } },
  lock: {
    says: 'Locks a parameter, so that only a hand changes it; or unlocks it.',
    example: { do: 'lock', module: 'trim', param: 'volts', locked: true },
  },
  ohms: {
    says: 'Sets the impedance of an input or an output; `null` resets it to the usual value.',
    example: { do: 'ohms', module: 'tone', side: 'inputOhms', socket: 'cutoff', ohms: 47_000 },
  },
  noise: {
    says: 'Sets the noise of each output of a module, microvolts RMS; `null` resets it to the usual value.',
    example: { do: 'noise', module: 'trim', microvolts: 12 },
  },
  plug: {
    says: 'Patches a cable; one already in the same input is unplugged first.',
    example: { do: 'plug', cable: { from: 'swell.out', to: 'tone.cutoff2' } },
  },
  unplug: { says: 'Unplugs the cable of an input.', example: { do: 'unplug', to: 'tone.cutoff' } },
  normal: {
    says: 'Sets what an unpatched input carries; `null` restores the kind’s own normal.',
    example: { do: 'normal', to: 'trim.in', normal: { to: 'trim.in', volts: 5 } },
  },
  bypass: {
    says: 'Marks a module as bypassed, with the cables that restore it; `null` clears the mark.',
    example: { do: 'bypass', module: 'trim', cables: [{ from: 'swell.out', to: 'trim.in' }] },
  },
  target: {
    says: 'Sets a target at a socket; `null` removes it; `id` distinguishes several at one socket.',
    example: {
      do: 'target',
      at: 'tone.cutoff',
      target: { at: 'tone.cutoff', quantity: 'frequency', low: 300, high: 2400 },
    },
  },
  macro: {
    says: 'Sets which destinations a macro fader moves, and through which stages; `null` removes the macro and keeps the stages.',
    example: {
      do: 'macro',
      fader: 'tide',
      macro: { fader: 'tide', rows: [{ end: 'tone.cutoff', curve: 'straight', stages: ['trim'] }] },
    },
  },
  hand: {
    says: 'Automates a knob over time; `null` removes the automation.',
    example: {
      do: 'hand',
      at: 'trim.amount',
      hand: {
        at: 'trim.amount',
        points: [
          { t: 0, value: 0.2 },
          { t: 2, value: 0.8 },
        ],
        interpolation: 'linear',
        loop: false,
      },
    },
  },
  pin: { says: 'Pins a socket to the scope, or unpins it.', example: { do: 'pin', at: 'trim.out', pinned: true } },
  dismiss: {
    says: 'Dismisses an issue, with a reason; `null` restores it.',
    example: { do: 'dismiss', code: 'polarity', at: 'tone.cutoff', reason: 'It is meant.' },
  },
  control: {
    says: 'Assigns a MIDI control (128 for pitch bend) to a knob; `null` unassigns it.',
    example: { do: 'control', number: 21, at: 'trim.amount' },
  },
  variant: {
    says: 'Saves a state as a named variant; `null` deletes it.',
    example: {
      do: 'variant',
      name: 'still',
      state: { settings, modules: [], cables: [], normals: [], targets: [], hands: [], macros: [] },
    },
  },
  state: {
    says: 'Loads a saved state. Pins, dismissals and variants stay where they still apply.',
    example: {
      do: 'state',
      state: {
        settings,
        modules: [{ id: 'swell', kind: 'lfo' }],
        cables: [],
        normals: [],
        targets: [],
        hands: [],
        macros: [],
      },
    },
  },
  settings: { says: 'Changes settings of the patch.', example: { do: 'settings', settings: { bpm: 92 } } },
  put: {
    says: 'Sets the name, the notes, all settings or the unknown keys of the document.',
    example: { do: 'put', put: { name: 'Low water' } },
  },
  tidy: { says: 'Removes references to sockets that no longer exist.', example: { do: 'tidy' } },
  splice: {
    says: 'Replaces entries of a list. Every other edit comes down to this one, and it undoes any of them.',
    example: { do: 'splice', list: 'cables', at: 1, remove: 1, insert: [{ from: 'swell.out', to: 'tone.cutoff' }] },
  },
} satisfies { readonly [K in Edit['do']]: Word & { readonly example: Extract<Edit, { readonly do: K }> } };

/** What the examples work on. */
export const editedDocument = {
  format: 'fenvo.patch',
  version: 1,
  modules: [
    { id: 'swell', kind: 'lfo' },
    { id: 'trim', kind: 'offset' },
    { id: 'tone', kind: 'filter' },
    { id: 'tide', kind: 'constant' },
  ],
  cables: [
    { from: 'swell.out', to: 'trim.in' },
    { from: 'trim.out', to: 'tone.cutoff' },
  ],
};

/** `docs/edits.md`: the words of cures, and of all that the editor does to a document. */
export function editsPage(): string {
  const rows = Object.entries(editWords).map(
    ([word, { says, example }]) => `| \`${word}\` | ${says} | \`${JSON.stringify(example)}\` |`,
  );
  return `# Edits

Generated from \`core/docs/editDocs.ts\` by \`npm run docs\`. A fix is \`{ "label", "edits" }\`; its edits are applied in order.

The examples apply to:

\`\`\`json
${JSON.stringify(editedDocument)}
\`\`\`

| do | effect | example |
| --- | --- | --- |
${rows.join('\n')}
`;
}
