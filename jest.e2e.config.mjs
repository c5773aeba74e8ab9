import { shared } from './jest.config.mjs';
const config = {
  ...shared,
  roots: ['<rootDir>/e2e'],
  testMatch: ['**/*.test.ts'],
  testTimeout: 300000,
  globalSetup: '<rootDir>/e2e/server.mjs',
  globalTeardown: '<rootDir>/e2e/stop.mjs',
};

export default config;
