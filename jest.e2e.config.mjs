import { shared } from './jest.config.mjs';
const config = {
  ...shared,
  roots: ['<rootDir>/e2e'],
  testMatch: ['**/*.test.ts'],
  testTimeout: 300000,
  setupFilesAfterEnv: ['<rootDir>/e2e/again.mjs'],
  reporters: ['default', '<rootDir>/e2e/twice.mjs'],
  globalSetup: '<rootDir>/e2e/server.mjs',
  globalTeardown: '<rootDir>/e2e/stop.mjs',
};

export default config;
