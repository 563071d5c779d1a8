import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from './tasks';

/** What the commands speak of. */
export interface Given {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly ends: readonly string[];
  /** The end whose strip is shown, and the socket of the strip itself, which may join it. */
  readonly end: string | null;
  readonly socket: string | null;
  readonly setScene: (scene: Scene) => void;
  readonly begin: (task: Task | null) => void;
  /** Goes to another screen. */
  readonly go: (address: string) => void;
}

/** Puts the focus on a part of the editor, once it is drawn. */
export function focusOn(selector: string): void {
  requestAnimationFrame(() => document.querySelector<HTMLElement | SVGElement>(selector)?.focus());
}
