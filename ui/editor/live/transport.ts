/** Where playing stands. Each attempt to play has a number: what comes of an older one changes nothing any more. */
export type PlayState =
  | { readonly phase: 'idle' | 'starting' | 'playing' | 'stopping'; readonly attempt: number }
  | { readonly phase: 'failed'; readonly attempt: number; readonly fault: string };

export type Phase = PlayState['phase'];

export type PlayEvent =
  | { readonly is: 'play' }
  | { readonly is: 'stop' }
  /** The device began, or does not. */
  | { readonly is: 'opened'; readonly attempt: number }
  | { readonly is: 'refused'; readonly attempt: number; readonly fault: string }
  /** The device was let go of, as asked; or it went away by itself. */
  | { readonly is: 'closed'; readonly attempt: number }
  | { readonly is: 'lost'; readonly attempt: number; readonly fault: string };

/** Nothing sounds, and nothing is about to. */
export const isSilent = (phase: Phase): boolean => phase !== 'starting' && phase !== 'playing';

/** What comes of an event, as a pure step: the same state where the event means nothing there. */
export function nextState(state: PlayState, event: PlayEvent): PlayState {
  const { phase, attempt } = state;
  if (event.is === 'play') return isSilent(phase) ? { phase: 'starting', attempt: attempt + 1 } : state;
  if (event.is === 'stop') return isSilent(phase) ? state : { phase: 'stopping', attempt };
  if (event.attempt !== attempt) return state;
  switch (event.is) {
    case 'opened':
      return phase === 'starting' ? { phase: 'playing', attempt } : state;
    case 'closed':
      return phase === 'failed' || phase === 'idle' ? state : { phase: 'idle', attempt };
    case 'refused':
    case 'lost':
      // A stopped transport asks for no device any more.
      if (phase === 'stopping') return { phase: 'idle', attempt };
      return phase === 'starting' || phase === 'playing' ? { phase: 'failed', attempt, fault: event.fault } : state;
  }
}

/** What sounds, from when it was opened until it is closed. */
export interface Device {
  /** Falls silent at once, and lets go of the device. */
  stop(): void;
}

/** What a device says of itself once it is open. */
export interface DeviceListener {
  onClosed(): void;
  onLost(fault: string): void;
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Drives a sound device through the states of playing: whatever comes late, nothing sounds that nobody can stop. */
export class Transport<D extends Device> {
  private state: PlayState = { phase: 'idle', attempt: 0 };
  private opened: D | null = null;

  constructor(private readonly onState: (state: PlayState) => void) {}

  get phase(): Phase {
    return this.state.phase;
  }

  /** What sounds now; null while nothing does. */
  get device(): D | null {
    return this.phase === 'playing' ? this.opened : null;
  }

  /**
   * Opens a device and begins to play on it. Where playing was stopped or begun anew meanwhile, the device is let go of
   * as soon as it comes.
   */
  async play(
    open: (listener: DeviceListener) => Promise<D>,
    begin: (device: D) => Promise<void> | void,
  ): Promise<void> {
    if (!isSilent(this.phase)) return;
    this.put({ is: 'play' });
    const { attempt } = this.state;
    let device: D | null = null;
    try {
      device = await open({
        onClosed: () => this.put({ is: 'closed', attempt }),
        onLost: (fault) => this.put({ is: 'lost', attempt, fault }),
      });
      if (this.isWanted(attempt)) await begin(device);
    } catch (error) {
      device?.stop();
      this.put({ is: 'refused', attempt, fault: messageOf(error) });
      return;
    }
    if (!this.isWanted(attempt)) {
      device.stop();
      this.put({ is: 'closed', attempt });
      return;
    }
    this.opened = device;
    this.put({ is: 'opened', attempt });
  }

  stop(): void {
    const { opened } = this;
    this.put({ is: 'stop' });
    opened?.stop();
  }

  private isWanted(attempt: number): boolean {
    return this.state.attempt === attempt && this.state.phase === 'starting';
  }

  private put(event: PlayEvent): void {
    const next = nextState(this.state, event);
    if (next === this.state) return;
    this.state = next;
    if (next.phase !== 'playing') this.opened = null;
    this.onState(next);
  }
}
