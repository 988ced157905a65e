/** Projects: core, contract and command line without services; server with a real PostgreSQL; e2e with a real browser. */
const common = {
  transform: {
    '^.+\\.(ts|tsx|js|mjs)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
          target: 'es2022',
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(canonicalize|d3-[a-z]+|internmap|@noble|pkijs|asn1js|@peculiar|bytestreamjs|@ant-design/[a-z-]+/es)/)',
  ],
  moduleNameMapper: {
    '^@true-ledger/core/(.*)$': '<rootDir>/core/src/$1/index.ts',
    '^@true-ledger/contract$': '<rootDir>/contract/src/index.ts',
    '^canonicalize$': '<rootDir>/node_modules/canonicalize/lib/canonicalize.js',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  rootDir: __dirname,
  testEnvironment: 'node',
};

/** Looked up through the sandbox, these make pixel loops many times slower than they are. Not Uint8Array where servers run: TLS tells one from another. */
const FAST = ['Math', 'Number', 'Float32Array', 'Float64Array'];

module.exports = {
  maxWorkers: 2,
  testSequencer: '<rootDir>/scripts/longestFirst.cjs',
  testTimeout: 240000,
  projects: [
    {
      ...common,
      displayName: 'core',
      testMatch: ['<rootDir>/{core,contract,cli,web}/src/**/*.test.ts'],
      sandboxInjectedGlobals: [...FAST, 'Uint8Array'],
    },
    {
      ...common,
      displayName: 'pages',
      sandboxInjectedGlobals: FAST,
      testMatch: ['<rootDir>/web/src/**/*.test.tsx'],
      testEnvironment: '<rootDir>/web/src/testing/environment.cjs',
      transform: {
        '^.+\\.(ts|tsx|js|mjs)$': [
          '@swc/jest',
          {
            jsc: { parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } }, target: 'es2022' },
            module: { type: 'commonjs' },
          },
        ],
      },
      moduleNameMapper: {
        '\\.css$': '<rootDir>/web/src/testing/noStyle.cjs',
        // What runs in a worker runs here, and charts are looked at in the browser tests.
        '/workers/compute\\.js$': '<rootDir>/web/src/testing/computeHere.ts',
        '/charts/Plot\\.js$': '<rootDir>/web/src/testing/noPlot.tsx',
        ...common.moduleNameMapper,
      },
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/server/test/**/*.test.ts'], sandboxInjectedGlobals: FAST },
    { ...common, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'], sandboxInjectedGlobals: FAST },
  ],
};
