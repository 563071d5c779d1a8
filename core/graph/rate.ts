import type { Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';

/** Samples a second of a patch that sounds. */
export const AUDIO_RATE = 48_000;
/** Samples a second that slow voltages need. */
export const CONTROL_RATE = 8000;
/** A source that repeats faster counts as audio, Hz. */
const CONTROL_HZ = 50;

/** Whether a module needs the audio rate: by its kind, or because it runs by itself that fast. */
export const needsAudio = ({ kind, params }: { readonly kind: Kind; readonly params: ParamValues }): boolean =>
  kind.sound?.audioRate || (kind.source?.runs !== undefined && (kind.source?.hertz?.(params) ?? 0) > CONTROL_HZ);
