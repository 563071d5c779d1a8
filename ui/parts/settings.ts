import { createStore } from 'zustand';

/** What this browser keeps of a person's choices. */
interface Kept {
  readonly singleKeys: boolean;
  /** The tour: not taken yet, running, or done. */
  readonly guide: 'new' | 'on' | 'off';
  /** What Fenvo is and does stands over the patches. */
  readonly welcome: boolean;
  /** Which parts of panels are open. */
  readonly sections: Readonly<Record<string, boolean>>;
  /** The chosen rack's id; empty for none. */
  readonly rack: string;
  /** Has read what to care for before the first sound. */
  readonly cared: boolean;
  /** Exercises of the ear are asked, too. */
  readonly byEar: boolean;
  /** Sound goes on while its tab is hidden. */
  readonly background: boolean;
  /** The rack's modules as they were measured, not as they are meant. */
  readonly asMeasured: boolean;
  /** Until then nobody is reminded of a backup, ISO date; empty: until it is due. */
  readonly backupLater: string;
}

const KEY = 'fenvo.settings';
const start: Kept = {
  singleKeys: true,
  guide: 'new',
  welcome: true,
  sections: {},
  rack: '',
  cared: false,
  byEar: false,
  background: true,
  asMeasured: false,
  backupLater: '',
};

/** What of a kept value is true or false, by name. */
function flags(x: unknown): Record<string, boolean> {
  if (typeof x !== 'object' || x === null) return {};
  return Object.fromEntries(Object.entries(x).filter(([, v]) => typeof v === 'boolean')) as Record<string, boolean>;
}

function read(): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<keyof Kept, unknown>>;
    return {
      singleKeys: kept.singleKeys !== false,
      guide: kept.guide === 'on' || kept.guide === 'off' ? kept.guide : 'new',
      welcome: kept.welcome !== false,
      sections: flags(kept.sections),
      rack: typeof kept.rack === 'string' ? kept.rack : '',
      cared: kept.cared === true,
      byEar: kept.byEar === true,
      background: kept.background !== false,
      asMeasured: kept.asMeasured === true,
      backupLater: typeof kept.backupLater === 'string' ? kept.backupLater : '',
    };
  } catch {
    return start;
  }
}

export const settings = createStore<Kept>(() => (typeof window === 'undefined' ? start : read()));

if (typeof window !== 'undefined')
  // Another tab chose something, or the browser forgot it all.
  window.addEventListener('storage', ({ key }) => {
    if (key === KEY || key === null) settings.setState(read());
  });

export function setSetting<K extends keyof Kept>(key: K, value: Kept[K]): void {
  settings.setState({ [key]: value });
  try {
    localStorage.setItem(KEY, JSON.stringify(settings.getState()));
  } catch {
    // A browser that keeps nothing asks again next time.
  }
}
