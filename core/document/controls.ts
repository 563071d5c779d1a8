import { byDefault, list, record, text, whole } from './fields';
import type { ValueOf } from './fields';
import { onlyOnce } from './readField';
import { idOf, SOCKET_PATTERN } from './sockets';

/** A controller's numbered controls, and pitch bend beside them. */
export const CONTROLS = { most: 128, bend: 128 } as const;

const control = record(
  {
    /** As the controller numbers it; 128 for pitch bend. */
    number: whole(0, CONTROLS.most),
    /** `moduleId.parameter`; of a module that only a variant has, it waits for that. */
    at: text(100, { pattern: { shape: new RegExp(SOCKET_PATTERN), words: 'moduleId.parameter' } }),
  },
  { says: 'a control of a MIDI controller, and the knob that it moves' },
);
export type Control = ValueOf<typeof control>;

/** All controls that were assigned; each moves one knob. */
export const controlsField = byDefault(
  list(control, CONTROLS.most + 1, {
    check: onlyOnce(
      (c: Control) => String(c.number),
      '.number',
      (n) => `control ${n} is assigned already`,
    ),
  }),
  [],
);

/** Without those of a module that is in no state of the patch any more. */
export const controlsWithout = (
  controls: readonly Control[],
  id: string,
  variants: readonly { readonly modules: readonly { readonly id: string }[] }[],
): readonly Control[] =>
  variants.some((v) => v.modules.some((m) => m.id === id)) || controls.every((c) => idOf(c.at) !== id)
    ? controls
    : controls.filter((c) => idOf(c.at) !== id);
