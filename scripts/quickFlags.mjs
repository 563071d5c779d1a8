// How Node is started for what is checked: both cores are busy, most is run a few times only, so the less it compiles
// and tidies beside the work itself the sooner it is done. Measured: docs/decisions/0020-quicker-checks.md.

/** Memory is tidied by the thread that works, seldom; small functions alone are put into their callers. */
export const quickFlags = [
  '--single-threaded-gc',
  '--min-semi-space-size=32',
  '--max-semi-space-size=64',
  '--max-inlined-bytecode-size=60',
  '--max-inlined-bytecode-size-cumulative=100',
];
/** And what reads each source once is compiled to its best only where it runs very often. */
export const readingFlags = [...quickFlags, '--interrupt-budget=1000000'];
