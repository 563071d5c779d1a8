/** A module type that many racks have one of: what a person picks instead of writing channels by hand. */
export interface ModuleType {
  /** As a rack document names it. */
  readonly type: string;
  readonly name: string;
  readonly says: string;
  readonly hp: number;
  readonly channels: readonly ChannelPlan[];
}

/** A channel as a rack document has it, with its id. */
export type ChannelPlan = Readonly<Record<string, unknown>> & { readonly id: string };

const LETTERS = 'abcdefghijklmnop';

/** A number of like channels, lettered; each may differ by its place. */
export const channels = (
  count: number,
  doc: Readonly<Record<string, unknown>> | ((index: number) => Readonly<Record<string, unknown>>),
): ChannelPlan[] =>
  Array.from({ length: count }, (_, i) => {
    const id = LETTERS[i] ?? `x${i}`;
    return { id, label: id.toUpperCase(), ...(typeof doc === 'function' ? doc(i) : doc) };
  });

/** The one channel of a module that is one thing. */
export const single = (doc: Readonly<Record<string, unknown>>): ChannelPlan[] => [{ id: 'a', ...doc }];

/** The id of the channel before the one at an index. */
export const before = (index: number): string => LETTERS[index - 1] ?? 'a';

/** What most outputs and inputs are built with. */
export const usual = { outputOhms: { out: 1000 }, inputOhms: { in: 100_000 } } as const;
