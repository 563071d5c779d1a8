import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isSilent, nextState, Transport } from './transport';
import type { Device, DeviceListener, PlayEvent, PlayState } from './transport';

/** A sound device whose answers come when a test says so. */
class FakeDevice implements Device {
  stopped = false;
  constructor(readonly listener: DeviceListener) {}
  stop(): void {
    this.stopped = true;
    this.listener.onClosed();
  }
}

function playing() {
  const states: PlayState[] = [];
  const transport = new Transport<FakeDevice>((state) => states.push(state));
  const answers: { give: (fault?: string) => void; device: FakeDevice }[] = [];
  const begun: FakeDevice[] = [];
  const play = (begin: (device: FakeDevice) => Promise<void> | void = (d) => void begun.push(d)): Promise<void> =>
    transport.play(
      (listener) =>
        new Promise((resolve, reject) => {
          const device = new FakeDevice(listener);
          answers.push({ device, give: (fault) => (fault === undefined ? resolve(device) : reject(new Error(fault))) });
        }),
      begin,
    );
  return { transport, states, answers, begun, play };
}

const phases = (states: readonly PlayState[]): string[] => states.map((s) => s.phase);

describe('playing', () => {
  it('starts, plays and stops', async () => {
    const { transport, states, answers, begun, play } = playing();
    const started = play();
    expect(transport.phase).toBe('starting');
    answers[0]!.give();
    await started;
    expect(transport.device).toBe(begun[0]);
    transport.stop();
    expect(phases(states)).toEqual(['starting', 'playing', 'stopping', 'idle']);
    expect(begun[0]!.stopped).toBe(true);
  });

  it('stopped while the device starts never sounds, however late the device comes', async () => {
    const { transport, states, answers, begun, play } = playing();
    const started = play();
    transport.stop();
    expect(isSilent(transport.phase)).toBe(true);
    answers[0]!.give();
    await started;
    expect(begun).toEqual([]);
    expect(answers[0]!.device.stopped).toBe(true);
    expect(phases(states)).toEqual(['starting', 'stopping', 'idle']);
  });

  it('stopped while it fetches what it plays never sounds either', async () => {
    const { transport, answers, play } = playing();
    let fetched: () => void = () => undefined;
    const started = play(() => new Promise((resolve) => (fetched = resolve)));
    answers[0]!.give();
    await Promise.resolve();
    await Promise.resolve();
    transport.stop();
    fetched();
    await started;
    expect(answers[0]!.device.stopped).toBe(true);
    expect(transport.phase).toBe('idle');
  });

  it('begun anew before a slow device came plays on the second alone', async () => {
    const { transport, answers, begun, play } = playing();
    const first = play();
    transport.stop();
    const second = play();
    answers[1]!.give();
    await second;
    answers[0]!.give();
    await first;
    expect(begun).toEqual([answers[1]!.device]);
    expect(answers[0]!.device.stopped).toBe(true);
    expect(answers[1]!.device.stopped).toBe(false);
    expect(transport.device).toBe(answers[1]!.device);
  });

  it('refused says why and can be tried again', async () => {
    const { transport, states, answers, play } = playing();
    const started = play();
    answers[0]!.give('The sound device does not answer.');
    await started;
    expect(states.at(-1)).toEqual({ phase: 'failed', attempt: 1, fault: 'The sound device does not answer.' });
    const again = play();
    answers[1]!.give();
    await again;
    expect(transport.phase).toBe('playing');
  });

  it('lost says so, and what the lost device says later changes nothing', async () => {
    const { transport, states, answers, play } = playing();
    const started = play();
    answers[0]!.give();
    await started;
    answers[0]!.device.listener.onLost('The device is gone.');
    expect(states.at(-1)).toMatchObject({ phase: 'failed', fault: 'The device is gone.' });
    expect(transport.device).toBeNull();
    answers[0]!.device.listener.onClosed();
    expect(transport.phase).toBe('failed');
  });

  it('in any order of events has one device at most, and none once it is silent', () => {
    const event = fc.oneof(
      fc.constantFrom<PlayEvent>({ is: 'play' }, { is: 'stop' }),
      fc.record({ is: fc.constantFrom('opened', 'closed'), attempt: fc.nat(4) }) as fc.Arbitrary<PlayEvent>,
      fc.record({
        is: fc.constantFrom('refused', 'lost'),
        attempt: fc.nat(4),
        fault: fc.constant('x'),
      }) as fc.Arbitrary<PlayEvent>,
    );
    fc.assert(
      fc.property(fc.array(event, { maxLength: 30 }), (events) => {
        let state: PlayState = { phase: 'idle', attempt: 0 };
        for (const e of events) {
          const next = nextState(state, e);
          if (next.phase === 'playing' && state.phase !== 'playing')
            expect([state.phase, e]).toEqual(['starting', { is: 'opened', attempt: state.attempt }]);
          if (e.is === 'stop') expect(isSilent(next.phase)).toBe(true);
          if (e.is !== 'play') expect(next.attempt).toBe(state.attempt);
          state = next;
        }
      }),
      { numRuns: 500 },
    );
  });
});
