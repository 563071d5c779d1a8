/** What listens on the browser's sound thread: where its program lies once the application is built, and its name there. */
export const CAPTURE = { program: '/capture.worklet.js', processor: 'fenvo-capture' } as const;

/** What was heard since the last such part, and how many samples of it were lost and are held in place of, so far. */
export interface CapturedPart {
  readonly samples: Float32Array;
  readonly lost: number;
}
