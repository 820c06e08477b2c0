// Two ESM-only packages that Fastify's plugins require(): Node 20.19+ can, Jest cannot, so swc turns them.
const requiredEsm = '/node_modules/(cookie|content-disposition)/.+\\.js$';
const swc = (parser) => [
  '@swc/jest',
  {
    jsc: { parser, target: 'es2023', transform: { react: { runtime: 'automatic' } } },
    sourceMaps: 'inline',
  },
];
const common = {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: {
    '^.+\\.ts$': swc({ syntax: 'typescript' }),
    '^.+\\.tsx$': swc({ syntax: 'typescript', tsx: true }),
    [requiredEsm]: swc({ syntax: 'ecmascript' }),
  },
  transformIgnorePatterns: ['/node_modules/(?!(cookie|content-disposition)/)'],
  modulePathIgnorePatterns: ['<rootDir>/.*/dist/', '<rootDir>/\\.(data|test)/'],
};

export default {
  testTimeout: 240_000,
  projects: [
    {
      ...common,
      displayName: 'core',
      testMatch: ['<rootDir>/{core,contract,web,demo}/src/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'page',
      testEnvironment: '<rootDir>/web/test/jsdomEnvironment.mjs',
      testEnvironmentOptions: { customExportConditions: ['source', 'browser'] },
      moduleNameMapper: {
        ...common.moduleNameMapper,
        // it calls its own sources `source`, as we do ours
        '^compute-scroll-into-view$':
          '<rootDir>/node_modules/compute-scroll-into-view/dist/index.cjs',
      },
      testMatch: ['<rootDir>/web/src/**/*.test.tsx'],
    },
    {
      ...common,
      displayName: 'server',
      testMatch: ['<rootDir>/server/src/**/*.test.ts'],
      globalSetup: '<rootDir>/server/test/setup.mjs',
    },
  ],
};
