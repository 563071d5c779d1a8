import type { Live } from './live';

export interface RenderProps {
  readonly live: Live;
  readonly pins: readonly string[];
}
