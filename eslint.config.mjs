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
      'no-restricted-syntax': [
        'error',
        ...BY_NAME.map((left) => ({
          selector: `BinaryExpression${left}[right.type='Literal']`,
          message: 'A kind says of itself what others ask: add a trait to core/kinds/kind.ts.',
        })),
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx,mjs}'],
    ignores: ['**/*.test.ts', 'tests/**', 'bench/**'],
    rules: { 'max-lines': ['error', { max: 250 }] },
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
