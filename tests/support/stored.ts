/** What stands at an application: each patch and rack with its revision. */
export type Stored = Readonly<Record<'patches' | 'racks', Readonly<Record<string, number>>>>;

const KINDS = ['patches', 'racks'] as const;

export async function storedAt(url: string): Promise<Stored> {
  const lists = KINDS.map(async (kind) => {
    const answer = (await (await fetch(`${url}/api/${kind}`)).json()) as Record<
      string,
      readonly { id: string; revision: number }[]
    >;
    return [kind, Object.fromEntries((answer[kind] ?? []).map(({ id, revision }) => [id, revision]))] as const;
  });
  return Object.fromEntries(await Promise.all(lists)) as Stored;
}

/** Takes away for good what was not there before. */
export async function removeNew(url: string, before: Stored): Promise<void> {
  const now = await storedAt(url);
  for (const kind of KINDS)
    for (const id of Object.keys(now[kind]).filter((i) => !(i in before[kind]))) {
      const path = `${url}/api/${kind}/${encodeURIComponent(id)}`;
      await fetch(path, { method: 'DELETE' });
      if (kind === 'patches') await fetch(`${path}?forever=true`, { method: 'DELETE' });
    }
}
