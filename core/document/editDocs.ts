import type { Edit } from './edits';

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
  plug: {
    says: 'Plugs a cable; another in the same input is taken out first.',
    example: { do: 'plug', cable: { from: 'swell.out', to: 'tone.cutoff2' } },
  },
  unplug: { says: 'Takes the cable out of an input.', example: { do: 'unplug', to: 'tone.cutoff' } },
  normal: {
    says: 'Says what an unplugged input carries; `null` leaves it to its kind.',
    example: { do: 'normal', to: 'trim.in', normal: { to: 'trim.in', volts: 5 } },
  },
  target: {
    says: 'Says what is wanted at a socket; `null` takes that back.',
    example: {
      do: 'target',
      at: 'tone.cutoff',
      target: { at: 'tone.cutoff', quantity: 'frequency', low: 300, high: 2400 },
    },
  },
  settings: { says: 'Changes settings of the patch.', example: { do: 'settings', settings: { bpm: 92 } } },
} satisfies { readonly [K in Edit['do']]: Word & { readonly example: Extract<Edit, { readonly do: K }> } };

/** What the examples work on. */
export const editedDocument = {
  format: 'fenvo.patch',
  version: 1,
  modules: [
    { id: 'swell', kind: 'lfo' },
    { id: 'trim', kind: 'offset' },
    { id: 'tone', kind: 'filter' },
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

Made from \`core/document/editDocs.ts\` by \`npm run docs\`. A cure is \`{ "label", "edits" }\`; its edits are done in their order.

The examples work on:

\`\`\`json
${JSON.stringify(editedDocument)}
\`\`\`

| do | what it does | example |
| --- | --- | --- |
${rows.join('\n')}
`;
}
