// Two ESM-only packages that Fastify's plugins require(): Node 20.19+ can, Jest cannot, so swc turns them.
const requiredEsm = '/node_modules/(cookie|content-disposition)/.+\\.js$';
const swc = (parser) => ['@swc/jest', { jsc: { parser, target: 'es2023' }, sourceMaps: 'inline' }];
const common = {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: ['.ts'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: {
    '^.+\\.ts$': swc({ syntax: 'typescript' }),
    [requiredEsm]: swc({ syntax: 'ecmascript' }),
  },
  transformIgnorePatterns: ['/node_modules/(?!(cookie|content-disposition)/)'],
  modulePathIgnorePatterns: ['<rootDir>/.*/dist/', '<rootDir>/\\.(data|test)/'],
};

export default {
  testTimeout: 60_000,
  projects: [
    {
      ...common,
      displayName: 'core',
      testMatch: ['<rootDir>/{core,contract,web,demo}/src/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'server',
      testMatch: ['<rootDir>/server/src/**/*.test.ts'],
      globalSetup: '<rootDir>/server/test/setup.mjs',
    },
  ],
};
