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
    says: 'Sets a parameter; without `value` it goes back to its default. Parameters whose limits hang on it are brought inside them.',
    example: { do: 'set', module: 'trim', param: 'amount', value: 0.4 },
  },
  add: {
    says: 'Adds a module, before another in the list, or at its end.',
    example: { do: 'add', module: { id: 'turn', kind: 'inverter' }, before: 'tone' },
  },
  replace: {
    says: 'Puts other settings, another label or another kind under the same id. Cables stay where the sockets do.',
    example: { do: 'replace', module: { id: 'trim', kind: 'attenuverter', params: { amount: -0.5 } } },
  },
  remove: {
    says: 'Removes a module with its cables, normals, targets and probes.',
    example: { do: 'remove', id: 'trim' },
  },
  move: {
    says: 'Moves a module before another in the list. A loop is cut at the first of its modules that is listed.',
    example: { do: 'move', id: 'tone', before: 'swell' },
  },
  label: { says: 'Names a module.', example: { do: 'label', module: 'trim', label: 'Breath' } },
  lock: {
    says: 'Locks a parameter, so that nothing but a hand moves it; or frees it.',
    example: { do: 'lock', module: 'trim', param: 'volts', locked: true },
  },
  ohms: {
    says: 'Says how an input loads, or an output gives way; `null` is what is usual.',
    example: { do: 'ohms', module: 'tone', side: 'inputOhms', socket: 'cutoff', ohms: 47_000 },
  },
  plug: {
    says: 'Plugs a cable; another in the same input is taken out first.',
    example: { do: 'plug', cable: { from: 'swell.out', to: 'tone.cutoff2' } },
  },
  unplug: { says: 'Takes the cable out of an input.', example: { do: 'unplug', to: 'tone.cutoff' } },
  normal: {
    says: 'Says what an unplugged input carries; `null` leaves it to its kind.',
    example: { do: 'normal', to: 'trim.in', normal: { to: 'trim.in', volts: 5 } },
  },
  bypass: {
    says: 'Notes that a module is out of its path for now, and which cables put it back; `null` takes the note away.',
    example: { do: 'bypass', module: 'trim', cables: [{ from: 'swell.out', to: 'trim.in' }] },
  },
  target: {
    says: 'Says what is wanted at a socket; `null` takes that back; `id` tells several at one socket apart.',
    example: {
      do: 'target',
      at: 'tone.cutoff',
      target: { at: 'tone.cutoff', quantity: 'frequency', low: 300, high: 2400 },
    },
  },
  macro: {
    says: 'Keeps which ends a fader moves, and through which stages; `null` forgets them, and leaves the stages.',
    example: {
      do: 'macro',
      fader: 'tide',
      macro: { fader: 'tide', rows: [{ end: 'tone.cutoff', curve: 'straight', stages: ['trim'] }] },
    },
  },
  hand: {
    says: 'Lets a hand turn a knob over time; `null` takes it off.',
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
    says: 'Keeps a finding from being said, with the reason; `null` lets it be said again.',
    example: { do: 'dismiss', code: 'polarity', at: 'tone.cutoff', reason: 'It is meant.' },
  },
  variant: {
    says: 'Keeps a state under a name; `null` drops it.',
    example: {
      do: 'variant',
      name: 'still',
      state: { settings, modules: [], cables: [], normals: [], targets: [], hands: [], macros: [] },
    },
  },
  state: {
    says: 'Puts a kept state in place. What is pinned, dismissed or set aside stays where it still can.',
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
    says: 'Puts the name, the notes, all settings or the unknown keys of the document.',
    example: { do: 'put', put: { name: 'Low water' } },
  },
  tidy: { says: 'Takes off what hangs on sockets that are not there.', example: { do: 'tidy' } },
  splice: {
    says: 'Puts entries of a list in the place of others. What every other edit comes to, and what takes any of them back.',
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

/** `docs/edits.md`: the words of cures, and of all that the desk does to a document. */
export function editsPage(): string {
  const rows = Object.entries(editWords).map(
    ([word, { says, example }]) => `| \`${word}\` | ${says} | \`${JSON.stringify(example)}\` |`,
  );
  return `# Edits

Made from \`core/docs/editDocs.ts\` by \`npm run docs\`. A cure is \`{ "label", "edits" }\`; its edits are done in their order.

The examples work on:

\`\`\`json
${JSON.stringify(editedDocument)}
\`\`\`

| do | what it does | example |
| --- | --- | --- |
${rows.join('\n')}
`;
}
