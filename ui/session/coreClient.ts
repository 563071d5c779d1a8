import type { Remote } from 'comlink';
import type { ModuleBounds, Patch } from '@/core';
import type { CoreWorker, CuresAnswer, FullAnswer, FullRequest, PreviewAnswer, PreviewRequest } from '@/wire/core';
import { coreWorker, leaveCore } from './coreWorker';
import { Line } from './line';
import type { Progress } from './line';

/** Previews are no nearer together than this, so that a turning knob has the machine to itself, milliseconds. */
const PACE = 66;

export interface PreviewQuestion extends PreviewRequest {
  readonly patch: Patch;
}

export interface FullQuestion extends FullRequest {
  readonly patch: Patch;
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
}

export interface CoreClient {
  preview(question: PreviewQuestion): void;
  full(question: FullQuestion): void;
  /** Ends a long run. */
  cancel(): void;
  close(): void;
}

export interface CoreEvents {
  readonly preview: (answer: PreviewAnswer) => void;
  readonly full: (patch: Patch, answer: FullAnswer) => void;
  /** The findings of the last whole run, with their cures checked. */
  readonly cures: (patch: Patch, answer: CuresAnswer) => void;
  readonly failure: (message: string) => void;
  readonly progress: (progress: Progress) => void;
}

/** For the next editor, without what this one asked. */
function leave(worker: Worker, remote: Remote<CoreWorker>): void {
  remote.forget().catch(() => undefined);
  leaveCore(worker);
}

/** Two workers, so that a long run never holds up what is being turned. */
export function openCore(on: CoreEvents): CoreClient {
  const preview = new Line<PreviewQuestion, PreviewAnswer, CoreWorker>({
    worker: coreWorker,
    ask: (remote, { patch, ...request }, stepTo) => remote.preview(stepTo(patch), request),
    onAnswer: (_question, answer) => on.preview(answer),
    onFailure: on.failure,
    pace: PACE,
    leave,
  });
  let asked: Patch | null = null;
  const full = new Line<FullQuestion | 'cures', FullAnswer | CuresAnswer, CoreWorker>({
    worker: coreWorker,
    ask(remote, question, stepTo) {
      if (question === 'cures') return remote.cures();
      const { patch, ...request } = question;
      return remote.full(stepTo(patch), request);
    },
    onAnswer(question, answer) {
      if (question === 'cures' || !('pictures' in answer)) {
        if (asked && !('pictures' in answer)) on.cures(asked, answer);
        return;
      }
      asked = question.patch;
      on.full(question.patch, answer);
      // Only while nothing else was asked: what is asked next takes its place.
      if (answer.prediction.findings.length > 0) full.afterwards('cures');
    },
    onFailure: on.failure,
    onProgress: on.progress,
    leave,
  });
  return {
    preview: (question) => preview.put(question),
    full: (question) => full.put(question),
    cancel: () => full.cancel(),
    close() {
      preview.close();
      full.close();
    },
  };
}
