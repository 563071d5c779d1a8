import type { DeskStore } from '@/ui/session/desk';
import type { Live } from './live';

export interface RenderProps {
  readonly desk: DeskStore;
  readonly live: Live;
  readonly pins: readonly string[];
  readonly end: string | null;
}
