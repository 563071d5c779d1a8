import { socketAt, socketPlace } from '@/core';
import { allKinds, completeParams, ownEnds, showNumber } from '@/core';
import type { GraphModule, Kind } from '@/core';
import type { Choice } from './Chooser';

/** What a person can choose from in the editor: stages, sources and ends, by name, with what they do beside it. */

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Stages that one signal passes through. */
export const insertable = allKinds.filter((k) => k.category === 'between' && !k.electrical?.joins);

const byName = (kinds: readonly Kind[], group: string): Choice[] =>
  kinds.map((k) => ({ key: k.name, title: k.title, says: k.does, group, aliases: k.aliases }));

export const stageChoices: readonly Choice[] = byName(insertable, 'Stages');
export const sourceChoices: readonly Choice[] = byName(
  allKinds.filter((k) => k.category === 'source'),
  'New source',
);
export const kindChoices: readonly Choice[] = [
  ...sourceChoices.map((c) => ({ ...c, group: 'Sources' })),
  ...byName(
    allKinds.filter((k) => k.category === 'between'),
    'Stages',
  ),
  ...byName(
    allKinds.filter((k) => k.category === 'end'),
    'Destinations',
  ),
];

/** What is played first is offered first. */
const placeOf = (kind: Kind): number => kind.offered ?? Infinity;
const byPlace = (a: Kind, b: Kind): number => (placeOf(a) === placeOf(b) ? 0 : placeOf(a) - placeOf(b));

/** Every input with a unit of its own, with what it responds to. The key is `kind.socket`. */
export const endChoices: readonly Choice[] = [...allKinds].sort(byPlace).flatMap((kind) => {
  const params = completeParams(kind);
  return ownEnds(kind).map((end) => {
    const window = end.window(params);
    const unit = end.unit(params);
    const reach = window ? `, from ${showNumber(window[0], 1)} to ${showNumber(window[1], 1)} V` : '';
    return {
      key: socketAt(kind.name, end.socket),
      title: socketPlace({ label: kind.title, kind }, end.socket),
      says: `${capital(end.quantity)}${unit ? ` in ${unit}` : ''}: ${end.says}${reach}`,
      aliases: kind.aliases,
      group: kind.category === 'end' || kind.offered !== undefined ? 'Destinations' : 'Parameters of other modules',
    };
  });
});

/** The socket of a loose destination: one that nothing drives yet and that drives nothing. */
export function waitingEnd(m: GraphModule, used: (output: string) => boolean): string | null {
  const meant = m.kind.category === 'end' || m.kind.offered !== undefined;
  const end = m.kind.ends?.[0];
  const idle = m.inputs.every((s) => s.driver.type !== 'output') && !m.outputs.some((o) => used(o.socket));
  return meant && end && idle ? socketAt(m.id, end.socket) : null;
}
