import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { PairedPhone } from '../wire/racks';

/** How long a code is valid, for one use, milliseconds. */
export const CODE_LASTS = 10 * 60_000;
/** How long a pairing lasts: one evening, milliseconds. */
export const PAIRING_LASTS = 12 * 3_600_000;
/** After this many wrong codes within a minute, codes are refused for the rest of it. */
const MOST_WRONG = 20;
const MINUTE = 60_000;

/** Letters and figures that cannot be taken for each other. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const CODE_LENGTH = 10;

/** The one sheet that a phone may see: of a patch on a rack, or on none. */
export interface SheetPlace {
  readonly patch: string;
  readonly rack: string;
}

interface Code extends SheetPlace {
  readonly until: number;
}

interface Session extends SheetPlace {
  readonly id: string;
  readonly agent: string;
  readonly since: number;
  /** The steps of the sheets that it was given: it may tick these, and no others. */
  readonly steps: Set<string>;
}

const hashed = (token: string): string => createHash('sha256').update(token).digest('hex');

function newCode(): string {
  return [...randomBytes(CODE_LENGTH)].map((b) => SIGNS[b % SIGNS.length]).join('');
}

/** Phones that may see one sheet each and send its ticks; kept while the program runs. */
export class Pairings {
  /** Where the local network reaches this program; null where that was not asked for. */
  address: string | null = null;
  private readonly codes = new Map<string, Code>();
  private readonly sessions = new Map<string, Session>();
  /** When each address sent wrong codes. */
  private readonly wrong = new Map<string, number[]>();

  constructor(private readonly now: () => number = Date.now) {}

  /** A code for one phone, for one sheet. */
  issue(place: SheetPlace): { readonly code: string; readonly until: number } {
    const code = newCode();
    const until = this.now() + CODE_LASTS;
    this.codes.set(code, { ...place, until });
    return { code, until };
  }

  /**
   * Takes a code for a token, once; null where it is foreign, used, too old, or too many of this address were wrong. One
   * address that guesses locks out no other.
   */
  redeem(code: string, agent: string, address: string): { readonly token: string; readonly place: SheetPlace } | null {
    const now = this.now();
    for (const [from, times] of this.wrong) {
      const recent = times.filter((at) => now - at < MINUTE);
      if (recent.length > 0) this.wrong.set(from, recent);
      else this.wrong.delete(from);
    }
    const wrong = this.wrong.get(address) ?? [];
    if (wrong.length >= MOST_WRONG) return null;
    const found = this.codes.get(code);
    this.codes.delete(code);
    if (!found || found.until < now) {
      this.wrong.set(address, [...wrong, now]);
      return null;
    }
    const token = randomBytes(24).toString('base64url');
    const { patch, rack } = found;
    this.sessions.set(hashed(token), {
      id: randomUUID(),
      patch,
      rack,
      agent: agent.slice(0, 120),
      since: now,
      steps: new Set(),
    });
    return { token, place: { patch, rack } };
  }

  /** The sheet that a token is for; null where it is none, was ended, or is too old. */
  placeOf(token: string): SheetPlace | null {
    const key = hashed(token);
    const session = this.sessions.get(key);
    if (!session) return null;
    if (this.now() - session.since <= PAIRING_LASTS) return { patch: session.patch, rack: session.rack };
    this.sessions.delete(key);
    return null;
  }

  /** Notes the steps of a sheet that a phone was given. */
  give(token: string, steps: readonly string[]): void {
    const session = this.sessions.get(hashed(token));
    for (const step of steps) session?.steps.add(step);
  }

  /** The steps that a phone may tick. */
  stepsOf(token: string): ReadonlySet<string> {
    return this.sessions.get(hashed(token))?.steps ?? new Set();
  }

  list(): PairedPhone[] {
    return [...this.sessions.values()].map(({ id, patch, agent, since }) => ({ id, patch, agent, since }));
  }

  end(id: string): boolean {
    const found = [...this.sessions].find(([, s]) => s.id === id);
    return found !== undefined && this.sessions.delete(found[0]);
  }
}

const shared = globalThis as { fenvoPairings?: Pairings };

/** The program's own: the front for the local network and the routes speak of the same. */
export const pairings = (): Pairings => (shared.fenvoPairings ??= new Pairings());
