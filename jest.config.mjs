const esm = [
  'clipper2-ts',
  'flatbush',
  'flatqueue',
  'delaunator',
  'd3-[a-z-]+',
  'internmap',
  'brotli',
  'comlink',
  'any-ascii',
  'fast-png',
  'iobuffer',
  'property-graph',
  '@gltf-transform',
];
export const shared = {
  testEnvironment: 'node',
  // The cleaning would wrap the globals that are handed in (below) once more after each file, until a stack is full.
  testEnvironmentOptions: { globalsCleanup: 'off' },
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' }, optimizer: { globals: { vars: { NaN: '(0 / 0)' } } } },
        },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${esm.join('|')})/)`],
  moduleFileExtensions: ['ts', 'tsx', 'mjs', 'js', 'json'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};
// Looking up globals goes through the sandbox of a test; these are handed in, which makes number work several times faster.
const config = {
  ...shared,
  setupFilesAfterEnv: ['<rootDir>/jest.setup.mjs'],
  sandboxInjectedGlobals: [
    'Math',
    'Float64Array',
    'Float32Array',
    'Int32Array',
    'Uint8Array',
    'Infinity',
    'Array',
    'Map',
    'Set',
    'Object',
    'Uint32Array',
    'Uint16Array',
    'Int8Array',
    'Int16Array',
    'BigInt64Array',
    'BigUint64Array',
    'Symbol',
    'WeakMap',
    'WeakSet',
  ],
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts'],
  testTimeout: 120000,
  maxWorkers: '100%',
};

export default config;
