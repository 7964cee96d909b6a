/** Arrows run one way: web and server stand on core, core on nothing; no circles anywhere. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(server|web|demo|e2e)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.spec\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'model-at-the-ground',
      severity: 'error',
      from: { path: '^core/src/(model|units)/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/src/(care|trouble|measure|loads|practice|formats)/' },
    },
    {
      name: 'web-not-server',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|demo)/' },
    },
    {
      name: 'server-not-web',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^web/' },
    },
    {
      name: 'demo-on-core-only',
      severity: 'error',
      from: { path: '^demo/' },
      to: { path: '^(server|web)/' },
    },
    {
      name: 'web-takes-schemas-as-types',
      comment: 'typebox stays out of the page',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^core/src/model/schemas', dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: 'specify',
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.js', '.mjs', '.json'],
      conditionNames: ['import', 'default'],
      exportsFields: ['exports'],
    },
  },
};
