// Compiles core/native/kernels to WebAssembly and writes it into core/native/code.ts; with --check only compares.
import { readFileSync, writeFileSync } from 'node:fs';
import { main } from 'assemblyscript/asc';
import { inRoot } from './lib.mjs';

const target = inRoot('core', 'native', 'code.ts');
const files = new Map();
const { error, stderr } = await main(
  // 112: vectors cannot be handed to JavaScript, and are not.
  [
    'index.ts',
    '-O3',
    '--runtime',
    'stub',
    '--importMemory',
    '--noAssert',
    '--enable',
    'simd',
    '--disableWarning',
    '112',
    '-o',
    'out.wasm',
  ],
  {
    readFile: (name) => read(name),
    writeFile: (name, data) => void files.set(name, data),
    listFiles: () => [],
  },
);
if (error) {
  console.error(stderr.toString());
  throw error;
}

function read(name) {
  try {
    return readFileSync(inRoot('core', 'native', 'kernels', name), 'utf8');
  } catch {
    return null;
  }
}

const base64 = Buffer.from(files.get('out.wasm')).toString('base64');
const text = `// Made from kernels/ by \`npm run kernels\`.
export const code =
  '${base64}';
`;
if (!process.argv.includes('--check')) writeFileSync(target, text);
else if (readFileSync(target, 'utf8') !== text) {
  console.error('core/native/code.ts is not what core/native/kernels compiles to: npm run kernels');
  process.exit(1);
}
