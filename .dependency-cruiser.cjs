/** The dependency rule of the house: inside core a room imports only rooms above it in this list. */
const rooms = [
  'time',
  'words',
  'lesson',
  'schedule',
  'ledger',
  'script',
  'framing',
  'signal',
  'assembly',
  'overlay',
  'checks',
  'formats',
  'results',
  'making',
  'patterns',
];

const coreOrder = rooms.map((room, i) => ({
  name: `core-${room}-looks-up-only`,
  comment: `core/${room} may use only the rooms above it`,
  severity: 'error',
  from: { path: `^packages/core/src/${room}/` },
  to: { path: `^packages/core/src/(${rooms.slice(i + 1).join('|') || 'none'})/` },
}));

const coreDoors = rooms.map((room) => ({
  name: `core-${room}-by-its-door`,
  comment: `other rooms enter core/${room} by its index.ts`,
  severity: 'error',
  from: { path: '^packages/core/src/', pathNot: `^packages/core/src/${room}/` },
  to: { path: `^packages/core/src/${room}/`, pathNot: `^packages/core/src/${room}/index\\.ts$` },
}));

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment: 'the core knows no interface, no disk and no network',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-depends-on-nothing-of-ours',
      severity: 'error',
      from: { path: '^packages/core/src/' },
      to: { path: '^(packages/contract|apps|demo|e2e|bench)/' },
    },
    {
      name: 'performer-for-tests-only',
      comment: 'the drawn performer gives core’s tests their truth',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '(\\.test\\.ts$|/testing/)' },
      to: { path: '^packages/performer/' },
    },
    {
      name: 'testing-for-tests-only',
      comment: 'helpers of tests never reach the program',
      severity: 'error',
      from: { path: '^(apps|packages)/', pathNot: '(\\.test\\.tsx?$|/testing/)' },
      to: { path: '/src/testing/' },
    },
    {
      name: 'cut-not-publish',
      comment: 'a cut is made for whoever shows it; publishing is one of them',
      severity: 'error',
      from: { path: '^apps/server/src/cut/' },
      to: { path: '^apps/server/src/publish/' },
    },
    {
      name: 'web-not-server',
      severity: 'error',
      from: { path: '^apps/web/' },
      to: { path: '^apps/server/' },
    },
    {
      name: 'server-not-web',
      severity: 'error',
      from: { path: '^apps/server/' },
      to: { path: '^apps/web/' },
    },
    {
      name: 'follow-stays-small',
      comment:
        'the pages for students and for second devices carry no store, no component library and no schema library',
      severity: 'error',
      from: { path: '^apps/web/src/(follow|remote)/' },
      to: {
        path: 'node_modules/(@mui|@emotion|@reduxjs|react-redux|react-router|zod|tus-js-client)/',
      },
    },
    ...coreOrder,
    ...coreDoors,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    exclude: { path: '(dist|\\.zest)/' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
