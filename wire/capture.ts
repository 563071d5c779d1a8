/** What listens on the browser's sound thread: where its program lies once the application is built, and its name there. */
export const CAPTURE = { program: '/capture.worklet.js', processor: 'fenvo-capture' } as const;
