/** How often it is looked whether the device still asks for sound, milliseconds; and how often in vain until it is lost. */
const LOOK = 1000;
const LOOKS = 4;

interface Told {
  /** The device is gone, or no longer asks for sound. */
  onLost(fault: string): void;
  /** Something to know, with which sound goes on. */
  onNotice(text: string): void;
}

const kHz = (rate: number): string => `${Math.round(rate / 10) / 100}\u00a0kHz`;

/** The rate that the machine's sound device runs at now. */
function deviceRate(): number {
  const probe = new AudioContext();
  const { sampleRate } = probe;
  void probe.close();
  return sampleRate;
}

/**
 * Watches a device that plays: taken away, stopped by the system, stalled, or changed for one of another rate.
 *
 * @param isOwnRate it plays at the device's own rate. @returns ends it.
 */
export function watchDevice(context: AudioContext, isOwnRate: boolean, told: Told): () => void {
  let [last, vain] = [-1, 0];
  const timer = setInterval(() => {
    const stalls = context.currentTime === last;
    vain = stalls ? vain + 1 : 0;
    last = context.currentTime;
    // What a system stops for a call, say, it gives back by itself.
    if (stalls && context.state !== 'closed') void context.resume();
    if (vain >= LOOKS) told.onLost('The sound device stopped.');
  }, LOOK);
  const onError = (): void => told.onLost('The sound device went away.');
  const onState = (): void => {
    if (context.state === 'closed') told.onLost('The sound device was closed.');
  };
  let known = context.sampleRate;
  const onDevices = (): void => {
    const rate = deviceRate();
    if (!isOwnRate || rate === known) return;
    known = rate;
    if (rate !== context.sampleRate)
      told.onNotice(
        `The sound device now runs at ${kHz(rate)}, the patch at ${kHz(context.sampleRate)}. Restart to match.`,
      );
  };
  const devices = (navigator as Partial<Navigator>).mediaDevices;
  context.addEventListener('error', onError);
  context.addEventListener('statechange', onState);
  devices?.addEventListener('devicechange', onDevices);
  return () => {
    clearInterval(timer);
    context.removeEventListener('error', onError);
    context.removeEventListener('statechange', onState);
    devices?.removeEventListener('devicechange', onDevices);
  };
}
