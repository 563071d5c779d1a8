import type { Database } from './database';
import { PatchRow } from './models';
import type { ListedPatch, Summary } from '../wire/patches';
import { threads } from './beside/thread';
import { tracesOf } from './traces';

type Made = Pick<ListedPatch, 'summary' | 'fault'>;

/** What is shown of a kept summary; null where it is damaged, or from before it held all that it holds now. */
function readMade(text: string): Made | null {
  try {
    const made = JSON.parse(text) as { summary: Partial<Summary> | null; fault: string | null };
    return made.summary === null || made.summary.figures === 'arrives' ? (made as Made) : null;
  } catch {
    return null;
  }
}

/** While a knob is turned, saves follow each other: nobody looks at the list then, milliseconds. */
const REST = 2000;

interface Queue {
  readonly wanted: Set<string>;
  /** What was saved a moment ago, by patch. */
  readonly resting: Map<string, NodeJS.Timeout>;
  running: Promise<void> | null;
}

const queues = new WeakMap<Database, Queue>();

/** What is still to be made, by patch; one at a time for a database. */
function queueOf(db: Database): Queue {
  const known: Queue = queues.get(db) ?? { wanted: new Set(), resting: new Map(), running: null };
  queues.set(db, known);
  return known;
}

/** The pictures of patches in the list: made after a save, beside the server's thread, kept with the revision. */
export class Summaries {
  constructor(private readonly db: Database) {}

  /** What a row holds of its summary; one that is missing is made for the next time. */
  of(row: Pick<PatchRow, 'id' | 'revision' | 'summary' | 'summaryRevision'>): Made {
    if (row.summary !== null && row.summaryRevision === row.revision) {
      const made = readMade(row.summary);
      if (made) return made;
    }
    this.want(row.id);
    return { summary: null, fault: null };
  }

  /** Once a patch that was saved rests, or is looked at. */
  wantSoon(id: string): void {
    const { resting } = queueOf(this.db);
    clearTimeout(resting.get(id));
    resting.set(id, setTimeout(() => this.want(id), REST).unref());
  }

  /** Now. */
  want(id: string): void {
    const queue = queueOf(this.db);
    clearTimeout(queue.resting.get(id));
    queue.resting.delete(id);
    queue.wanted.add(id);
    queue.running ??= this.work(queue).finally(() => (queue.running = null));
  }

  /** Until everything that is wanted is made, now or soon. */
  async settled(): Promise<void> {
    const queue = queueOf(this.db);
    for (const id of [...queue.resting.keys()]) this.want(id);
    while (queue.running) await queue.running;
  }

  private async work({ wanted }: Queue): Promise<void> {
    for (const id of wanted) {
      wanted.delete(id);
      await this.make(id).catch((error: unknown) => console.error(`summary of ${id}:`, error));
    }
  }

  private async make(id: string): Promise<void> {
    const row = await PatchRow.findByPk(id);
    if (!row || (row.summary !== null && row.summaryRevision === row.revision && readMade(row.summary))) return;
    const { revision } = row;
    const made = await this.made(row);
    await this.db.write((transaction) =>
      PatchRow.update(
        { summary: JSON.stringify(made), summaryRevision: revision },
        { where: { id, revision }, transaction },
      ),
    );
  }

  private async made({ body }: PatchRow): Promise<Made> {
    try {
      const text = await threads().painter.run('summary', { body, traces: await tracesOf(body) });
      return text === null
        ? { summary: null, fault: 'could not be read' }
        : { summary: JSON.parse(text) as Summary, fault: null };
    } catch (error) {
      return { summary: null, fault: error instanceof Error ? error.message : String(error) };
    }
  }
}
