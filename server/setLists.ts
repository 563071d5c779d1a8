import type { ChangeSheet, SetListSheet, StoredSetList } from '../wire/setLists';
import type { CreateSetListRequest, SaveSetListRequest } from '../wire/requests';
import { threads } from './beside/thread';
import { notFound } from './checks/errors';
import type { Database } from './database';
import { PatchRow, RackRow, SetListRow } from './models';
import { instrument } from './preferences';
import { Revised } from './revised';
import { tracesOf } from './traces';

async function bodyOf(id: string): Promise<{ readonly body: string; readonly name: string }> {
  const row = await PatchRow.findByPk(id, { attributes: ['body', 'name'] });
  if (!row) throw notFound(`patch ${id}`);
  return { body: row.body, name: row.name };
}

const rackOf = async (id: string): Promise<string | null> =>
  id === '' ? null : ((await RackRow.findByPk(id))?.body ?? null);

/** Evenings, and the ways from one patch to the next. */
export class SetLists extends Revised<StoredSetList> {
  constructor(db: Database) {
    super(db, SetListRow, 'set list', (head, body) => ({ ...(JSON.parse(body) as CreateSetListRequest), ...head }));
  }

  add(wanted: CreateSetListRequest, id?: string): Promise<StoredSetList> {
    return this.create({ name: wanted.name, body: JSON.stringify(wanted) }, id);
  }

  replace(id: string, { baseRevision, ...wanted }: SaveSetListRequest): Promise<StoredSetList> {
    return this.save(id, baseRevision, { name: wanted.name, body: JSON.stringify(wanted) });
  }

  /** The whole evening as one document. */
  async sheet(id: string): Promise<SetListSheet> {
    const { name, rack, items } = await this.get(id);
    const bodies = await Promise.all(items.map((item) => bodyOf(item.patch)));
    const traces = (await Promise.all(bodies.map((b) => tracesOf(b.body)))).flat();
    return threads().painter.run('setList', {
      name,
      rack: await rackOf(rack),
      items: items.map((item, i) => ({ ...item, body: bodies[i]?.body ?? '' })),
      traces,
      meter: await instrument(),
    });
  }

  /** From one patch, or variant of it, to another. */
  async change(wanted: {
    readonly from: string;
    readonly fromVariant: string;
    readonly to: string;
    readonly toVariant: string;
    readonly rack: string;
  }): Promise<ChangeSheet> {
    const [a, b] = await Promise.all([bodyOf(wanted.from), bodyOf(wanted.to)]);
    const traces = [...(await tracesOf(a.body)), ...(await tracesOf(b.body))];
    return threads().painter.run('change', {
      from: { body: a.body, variant: wanted.fromVariant },
      to: { body: b.body, variant: wanted.toVariant },
      rack: await rackOf(wanted.rack),
      traces,
      meter: await instrument(),
    });
  }
}
