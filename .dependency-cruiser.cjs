/*
 * Arrows run one way: web and server stand on core, core on nothing. Inside core the rooms are floors:
 * each stands only on those named before it. No circles anywhere, types counted.
 */
const { FLOORS, roomPath } = require('./tools/floors.cjs');

const names = FLOORS.map(({ room }) => room);

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...names.slice(0, -1).map((room, floor) => ({
      name: `${room}-stands-only-on-lower-floors`,
      severity: 'error',
      from: { path: roomPath(room), pathNot: '\\.spec\\.ts$' },
      to: { path: names.slice(floor + 1).map(roomPath) },
    })),
    {
      name: 'every-file-of-core-in-a-room',
      severity: 'error',
      from: {},
      to: {
        path: '^core/src/',
        pathNot: [...names.map(roomPath), '^core/src/index\\.ts$', '^core/src/types/'],
      },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(server|web|demo|e2e|tools)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.spec\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-takes-no-door',
      comment: 'inside core the file itself is named, never the index',
      severity: 'error',
      from: { path: '^core/src', pathNot: '^core/src/index\\.ts$' },
      to: { path: '^core/src/index\\.ts$' },
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
      name: 'no-route-on-another',
      comment: 'what routes share is in server/src/work',
      severity: 'error',
      from: { path: '^server/src/(routes|work|store|db|http|demo)', pathNot: '\\.spec\\.ts$' },
      to: { path: '^server/src/routes/' },
    },
    {
      name: 'server-floors',
      comment: 'routes on work on store on db; http knows none of them',
      severity: 'error',
      from: { path: '^server/src/(db|store|work|http)/' },
      to: { path: '^server/src/(routes|app\\.ts|main\\.ts)' },
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
      to: {
        path: '^core/src/model/(schemas|.*-schemas|inputs|answers)',
        dependencyTypesNot: ['type-only'],
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.js', '.mjs', '.json'],
      conditionNames: ['import', 'default'],
      exportsFields: ['exports'],
    },
  },
};
