/** The arrows between the rooms. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true, dependencyTypesNot: ['type-only'] } },
    {
      name: 'core-is-pure',
      comment: 'core/ imports nothing from outside core/ but small numeric and format packages',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^core/',
          '^node_modules/(wavefile|papaparse|fft\\.js|midi-file|fflate|linear-sum-assignment|ml-matrix|ts-fsrs|ts-graphviz)/',
        ],
      },
    },
    {
      name: 'core-tests',
      severity: 'error',
      from: { path: '^core/.*\\.test\\.ts$' },
      to: { path: '^(server|app|ui|workers|cli|tests|bench)/' },
    },
    {
      name: 'ui-not-server',
      severity: 'error',
      from: { path: '^ui/' },
      to: { path: '^(server|app|cli|demo|tests|bench)/' },
    },
    {
      name: 'wire-only-core',
      comment: 'what passes between page, server and worker speaks of the core alone',
      severity: 'error',
      from: { path: '^wire/' },
      to: { pathNot: '^(core|wire)/' },
    },
    {
      name: 'patches-and-desk-apart',
      severity: 'error',
      from: { path: '^ui/(patches|parts|session|theme)/' },
      to: { path: '^ui/editor/' },
    },
    {
      name: 'patches-apart',
      severity: 'error',
      from: { path: '^ui/(desk|parts|session|theme)/' },
      to: { path: '^ui/patches/' },
    },
    {
      name: 'server-no-screens',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(app|ui|workers|cli|tests|bench)/|node_modules/react' },
    },
    {
      name: 'workers-only-core',
      severity: 'error',
      from: { path: '^workers/' },
      to: { path: '^(server|app|ui|cli|demo|tests|bench)/' },
    },
    {
      name: 'paper-only-core',
      comment: 'what is printed speaks of the core alone; it runs in Node',
      severity: 'error',
      from: { path: '^paper/' },
      to: { path: '^(server|app|ui|workers|cli|demo|tests|bench)/' },
    },
    {
      name: 'ui-prints-nothing',
      severity: 'error',
      from: { path: '^(ui|workers|core)/' },
      to: { path: '^paper/' },
    },
    {
      name: 'cli-only-core',
      severity: 'error',
      from: { path: '^cli/' },
      to: { path: '^(server|app|ui|workers|tests|bench)/' },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, path: '^(core|paper|server|ui|workers|cli|demo)/', pathNot: '\\.d\\.ts$' },
      to: {},
    },
    {
      name: 'not-to-dev',
      severity: 'error',
      from: { path: '^(core|paper|server|app|ui|workers|cli)/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm-dev'], dependencyTypesNot: ['type-only'], pathNot: '^node_modules/@types/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
