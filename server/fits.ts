import { QueryTypes } from 'sequelize';
import type { RackFit } from '../wire/patches';
import { threads } from './beside/thread';
import type { Database } from './database';
import { RackRow, PatchRow } from './models';

/** A rack as far as patches are checked against it. */
export interface CheckedRack {
  readonly id: string;
  readonly body: string;
  /** Its part of the versions that a check is of. A backup may bring the same revision of another time. */
  readonly version: string;
}

/** The versions that a check is of, in SQL: of the patch in `patch_index i`, then of the rack. */
export const OF_VERSIONS = "(i.revision || ' ' || i.updatedAt || ' ' || :rackVersion)";

/** How many patches are checked between two writes. */
const AT_ONCE = 40;

/** Which patches are to be checked. */
type Which = ReadonlySet<string> | 'all';

interface Queue {
  /** By rack. */
  readonly wanted: Map<string, Which>;
  running: Promise<void> | null;
}
const queues = new WeakMap<Database, Queue>();

function queueOf(db: Database): Queue {
  const known: Queue = queues.get(db) ?? { wanted: new Map(), running: null };
  queues.set(db, known);
  return known;
}

/** Whether patches can be patched with a rack: worked out beside the server's thread, kept until either changes. */
export class Fits {
  constructor(private readonly db: Database) {}

  /** A rack to check against; null where there is none of this id. */
  async rack(id: string): Promise<CheckedRack | null> {
    const row = id === '' ? null : await RackRow.findByPk(id);
    if (!row || row.deletedAt) return null;
    return { id, body: row.body, version: `${row.revision} ${row.updatedAt.toISOString()}` };
  }

  /** Checks those of some patches that are not checked yet, the ones that were changed last first. */
  want(rack: string, which: readonly string[] | 'all'): void {
    const queue = queueOf(this.db);
    const before = queue.wanted.get(rack) ?? new Set();
    queue.wanted.set(rack, which === 'all' || before === 'all' ? 'all' : new Set([...before, ...which]));
    queue.running ??= this.work(queue).finally(() => (queue.running = null));
  }

  /** Until every check that is wanted is made. */
  async settled(): Promise<void> {
    const queue = queueOf(this.db);
    while (queue.running) await queue.running;
  }

  private async work({ wanted }: Queue): Promise<void> {
    for (const [id, which] of wanted) {
      wanted.delete(id);
      await this.checkAll(id, which).catch((error: unknown) => console.error(`checks against rack ${id}:`, error));
    }
  }

  private async checkAll(id: string, which: Which): Promise<void> {
    for (;;) {
      // Read anew each time: it may be saved, or deleted, meanwhile.
      const rack = await this.rack(id);
      const left = rack ? await this.unchecked(rack, which, AT_ONCE) : [];
      if (!rack || left.length === 0) return;
      const bodies = new Map((await PatchRow.findAll({ where: { id: left.map((l) => l.id) } })).map((p) => [p.id, p]));
      const rows: (string | number)[][] = [];
      for (const { id: patch, versions } of left) {
        const { short, standIns } = await this.fit(bodies.get(patch)?.body ?? '', rack);
        rows.push([patch, rack.id, versions, JSON.stringify(short), standIns]);
      }
      await this.db.write((transaction) =>
        this.db.sequelize.query(
          `INSERT OR REPLACE INTO fits (patchId, rackId, ofVersions, missing, standIns) VALUES ${rows.map(() => '(?)').join(', ')}`,
          { replacements: rows, transaction },
        ),
      );
    }
  }

  private unchecked(rack: CheckedRack, which: Which, most: number) {
    const ids = which === 'all' ? null : JSON.stringify([...which]);
    return this.db.sequelize.query<{ readonly id: string; readonly versions: string }>(
      `SELECT i.patchId AS id, ${OF_VERSIONS} AS versions FROM patch_index i
        LEFT JOIN fits f ON f.patchId = i.patchId AND f.rackId = :rack
        WHERE i.deletedAt IS NULL AND f.ofVersions IS NOT ${OF_VERSIONS}
          ${ids === null ? '' : 'AND i.patchId IN (SELECT value FROM json_each(:ids))'}
        ORDER BY i.updatedAt DESC, i.patchId LIMIT :most`,
      { replacements: { rack: rack.id, rackVersion: rack.version, most, ids }, type: QueryTypes.SELECT },
    );
  }

  /** One that cannot be read fits nowhere. */
  private async fit(body: string, rack: CheckedRack): Promise<RackFit> {
    try {
      return await threads().painter.run('fit', { body, rack: rack.body });
    } catch {
      return { short: [{ name: 'The whole patch', kind: 'Patch that can’t be read' }], standIns: 0 };
    }
  }
}
