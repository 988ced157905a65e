/** Imports point one way: web → contract, core; server → contract, core; cli → core; core → nothing of ours, no interface, no database, no Node. */

/** Floors of core, lowest first: a folder imports from those before it, never from one after it. */
const FLOORS = [
  'kit',
  'units',
  'engine',
  'film',
  'loads',
  'oil',
  'damage',
  'cause',
  'strip',
  'opening',
  'workshop',
  'measure',
  'ledger',
  'entries',
  'case',
  'measured',
  'notebook',
  'photo',
  'specimen',
  'diagnosis',
  'salvage',
  'report',
  'gate',
  'bundle',
];

module.exports = {
  forbidden: [
    ...FLOORS.slice(0, -1).map((floor, i) => ({
      name: `core-floor-${floor}`,
      severity: 'error',
      from: { path: `^core/src/${floor}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^core/src/(${FLOORS.slice(i + 1).join('|')})/` },
    })),
    {
      name: 'core-floors-known',
      severity: 'error',
      from: { path: '^core/src/', pathNot: `^core/src/(${FLOORS.join('|')}|testing)/` },
      to: {},
    },
    { name: 'core-index-is-for-outside', severity: 'error', from: { path: '^core/src/' }, to: { path: '^core/src/\\w+/index\\.ts$' } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^(contract|server|web|cli)/' },
    },
    { name: 'core-is-pure', severity: 'error', from: { path: '^core/src', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    {
      name: 'core-knows-no-interface',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: 'node_modules/(react|react-dom|antd|@nestjs|typeorm|pg|plotly|sharp)/' },
    },
    { name: 'contract-knows-core-only', severity: 'error', from: { path: '^contract/src' }, to: { path: '^(server|web|cli)/' } },
    { name: 'server-not-web', severity: 'error', from: { path: '^server/src' }, to: { path: '^(web|cli)/' } },
    { name: 'web-not-server', severity: 'error', from: { path: '^web/src' }, to: { path: '^(server|cli)/' } },
    {
      name: 'cli-core-only',
      severity: 'error',
      from: { path: '^cli/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^(contract|server|web)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: ['\\.d\\.ts$', '\\.test\\.tsx?$', 'main\\.tsx?$', '\\.worker\\.ts$', 'demo/load\\.ts$', '/testing/'] },
      to: {},
    },
    {
      name: 'testing-is-for-tests',
      severity: 'error',
      from: { pathNot: ['\\.test\\.tsx?$', '/testing/'] },
      to: { path: '/src/testing/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules|dist' },
    exclude: { path: 'dist/' },
    tsConfig: { fileName: 'tsconfig.depcruise.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
