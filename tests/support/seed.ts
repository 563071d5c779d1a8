import fc from 'fast-check';

// Properties begin from here where a seed is given, else from anywhere.
const seed = process.env.FENVO_SEED;
if (seed) fc.configureGlobal({ seed: Number(seed) });
