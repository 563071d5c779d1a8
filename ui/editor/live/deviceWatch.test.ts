import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { watchDevice } from './deviceWatch';

/** A context whose clock runs as long as it is let. */
class Context extends EventTarget {
  currentTime = 0;
  state = 'running';
  resumed = 0;
  resume(): Promise<void> {
    this.resumed++;
    return Promise.resolve();
  }
  close(): Promise<void> {
    return Promise.resolve();
  }
  constructor(readonly sampleRate = 48_000) {
    super();
  }
}

describe('a device that plays', () => {
  let context: Context;
  let said: string[];
  const devices = new EventTarget();
  let rate = 48_000;
  let end = (): void => undefined;
  const pass = (seconds: number, runs: boolean): void => {
    for (let i = 0; i < seconds; i++) {
      if (runs) context.currentTime++;
      vi.advanceTimersByTime(1000);
    }
  };
  const watch = (isOwnRate: boolean): void => {
    end = watchDevice(context as unknown as AudioContext, isOwnRate, {
      onLost: (fault) => said.push(`lost: ${fault}`),
      onNotice: (text) => said.push(text.replaceAll('\u00a0', ' ')),
    });
  };
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('navigator', { mediaDevices: devices });
    vi.stubGlobal('AudioContext', class extends Context { constructor() { super(rate); } }); // prettier-ignore
    context = new Context();
    said = [];
    rate = 48_000;
    watch(true);
  });
  afterEach(() => {
    end();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('and runs on says nothing', () => {
    pass(60, true);
    devices.dispatchEvent(new Event('devicechange'));
    expect(said).toEqual([]);
  });
  it('and is stopped for a while is asked to go on; for good, it is lost', () => {
    pass(5, true);
    pass(2, false);
    pass(5, true);
    expect(said).toEqual([]);
    expect(context.resumed).toBeGreaterThan(0);
    pass(5, false);
    expect(said[0]).toBe('lost: The sound device stopped.');
  });
  it('and goes away, or is closed, is lost', () => {
    context.dispatchEvent(new Event('error'));
    context.state = 'closed';
    context.dispatchEvent(new Event('statechange'));
    expect(said).toEqual(['lost: The sound device went away.', 'lost: The sound device was closed.']);
  });
  it('and changes its rate says so once, and what to do', () => {
    rate = 44_100;
    devices.dispatchEvent(new Event('devicechange'));
    devices.dispatchEvent(new Event('devicechange'));
    expect(said).toEqual(['The sound device now runs at 44.1 kHz, the patch at 48 kHz. Restart to match.']);
    rate = 48_000;
    devices.dispatchEvent(new Event('devicechange'));
    expect(said).toHaveLength(1);
  });
  it('at half its rate on purpose, another rate is no news', () => {
    end();
    watch(false);
    rate = 44_100;
    devices.dispatchEvent(new Event('devicechange'));
    expect(said).toEqual([]);
  });
});
