import next from 'eslint-config-next';
import nextTypescript from 'eslint-config-next/typescript';

const REACT = ['react', 'react-hooks', 'jsx-a11y', '@next/next'];
const ofReact = (rule) => REACT.some((plugin) => rule.startsWith(`${plugin}/`));
const rulesOf = (part, wanted) => Object.fromEntries(Object.entries(part.rules ?? {}).filter(([name]) => wanted(name)));

/** What the rules ask of React is asked where React is: they compile each file that they look at. */
const whereReactIs = (part) => [
  { ...part, rules: rulesOf(part, (name) => !ofReact(name)) },
  { files: ['{ui,app}/**/*.{ts,tsx}', '**/*.tsx'], rules: rulesOf(part, ofReact) },
];

/** Ways to ask a kind for its name: what is compared. What is saved has states called kinds, which are none. */
const BY_NAME = [
  "[left.property.name='name'][left.object.property.name='kind']",
  "[left.property.name='name'][left.object.name='kind']",
  "[left.name='kind']",
  "[left.property.name='kind'][left.object.name!='save'][left.object.property.name!='save']",
];

/** Ways to ask a document for its wiring, and to take a socket apart or write one. */
const WIRING = [
  ...["[object.name='patch']", "[object.property.name='patch']"].map((of) => ({
    selector: `MemberExpression${of}[property.name=/^(cables|normals|bypassed)$/]`,
    message: 'The wiring is resolved once: ask the graph’s wiring (core/graph/wiring.ts).',
  })),
  {
    selector:
      "VariableDeclarator[init.name='patch'] > ObjectPattern > Property[key.name=/^(cables|normals|bypassed)$/]",
    message: 'The wiring is resolved once: ask the graph’s wiring (core/graph/wiring.ts).',
  },
  {
    selector: "CallExpression[callee.property.name='split'][arguments.0.value='.']",
    message: 'A socket is taken apart in core/document/sockets.ts alone.',
  },
  {
    selector:
      "CallExpression[callee.property.name='startsWith'] > TemplateLiteral[quasis.0.value.raw=''][quasis.1.value.raw='.']",
    message: 'A socket is taken apart in core/document/sockets.ts alone.',
  },
  {
    selector:
      "TemplateLiteral[expressions.length=2][quasis.0.value.raw=''][quasis.1.value.raw='.'][quasis.2.value.raw='']:matches([expressions.0.property.name=/^(id|module)$/], [expressions.0.name='id'])",
    message: 'A socket is written in core/document/sockets.ts alone.',
  },
];

const BY_NAME_RULES = BY_NAME.map((left) => ({
  selector: `BinaryExpression${left}[right.type='Literal']`,
  message: 'A kind says of itself what others ask: add a facet to core/kinds/kind.ts.',
}));

const config = [
  {
    ignores: [
      '.next/**',
      'dist/**',
      'public/**',
      'node_modules/**',
      'coverage/**',
      'next-env.d.ts',
      'core/native/kernels/**',
    ],
  },
  ...next.flatMap(whereReactIs),
  ...nextTypescript,
  {
    files: ['**/*.ts', '**/*.tsx'],
    // No rule here reads what comments say of types.
    languageOptions: { parserOptions: { jsDocParsingMode: 'none' } },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    // What a kind is, it says of itself: nobody else asks for its name.
    files: ['core/**/*.ts', 'ui/**/*.{ts,tsx}', 'server/**/*.ts', 'workers/**/*.ts'],
    ignores: ['core/kinds/**', 'core/testing/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', ...BY_NAME_RULES],
    },
  },
  {
    // What is plugged, normalled, bypassed or turned by a hand, the wiring says: documents are asked by those who change
    // them alone.
    files: ['core/**/*.ts', 'ui/**/*.{ts,tsx}', 'workers/**/*.ts'],
    ignores: [
      'core/document/**',
      'core/edit/**',
      'core/graph/wiring.ts',
      'core/kinds/**',
      'core/testing/**',
      'core/units/**',
      // Tells how many cables a document holds.
      'ui/editor/shell/PatchPanel.tsx',
      '**/*.test.ts',
    ],
    rules: { 'no-restricted-syntax': ['error', ...BY_NAME_RULES, ...WIRING] },
  },
  {
    files: ['**/*.{ts,tsx,mjs}'],
    // A guide is 250 lines; a file over this holds more than one idea.
    ignores: ['**/*.test.ts', 'tests/**', 'bench/**'],
    rules: { 'max-lines': ['error', { max: 360 }] },
  },
  {
    files: ['ui/**/*.tsx', 'app/**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 80 }] },
  },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', 'tests/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
];

export default config;
