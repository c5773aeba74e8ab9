import boundaries from 'eslint-plugin-boundaries';
import next from 'eslint-config-next';
import tseslint from 'typescript-eslint';

/** The floors of src/core, lowest first: a floor may use itself and those before it. */
const floors = [
  'units',
  'geometry',
  'lettering',
  'artwork',
  'relief',
  'cutters',
  'kernels',
  'machine',
  'motion',
  'cuts',
  'program',
  'job',
  'merge',
  'proof',
  'exchange',
  'pipeline',
];
const core = floors.map((f) => ({ type: `core-${f}`, pattern: `src/core/${f}` }));
const houses = ['compute', 'store', 'ui', 'app', 'cli'];

const outside = {
  compute: ['compute'],
  store: ['store', 'compute'],
  ui: ['ui', 'store', 'compute'],
  app: ['ui'],
  cli: ['cli'],
};

const policy = (from, to) => ({ from: { element: { type: from } }, allow: [{ to: { element: { type: to } } }] });

const foreign = {
  regex: '^(react|next|dexie|three|zustand|@mui|node:|@/)',
  message: 'The core knows no interface, storage or machine.',
};
const algebra = { regex: '^clipper2-ts$', message: 'The algebra of outlines is reached through geometry/region.ts.' };

const config = [
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'public/**',
      'coverage/**',
      '.unit/**',
      'src/core/**/wasm/**',
    ],
  },
  // What React and its compiler ask for is asked of the interface alone: nothing else holds any.
  ...next.map((c) => (c.name === 'next' ? { ...c, files: ['src/{app,ui}/**/*.{ts,tsx}'] } : c)),
  ...tseslint.configs.recommended,
  {
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'boundaries/include': ['src/**/*'],
      'boundaries/elements': [
        ...core,
        { type: 'core-testing', pattern: 'src/core/testing' },
        ...houses.map((h) => ({ type: h, pattern: `src/${h}` })),
      ],
    },
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', 'src/core/testing/**'],
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          message: '{{from.element.type}} may not use {{to.element.type}}: imports point downward only',
          policies: [
            ...floors.map((f, i) =>
              policy(
                `core-${f}`,
                floors.slice(0, i + 1).map((g) => `core-${g}`),
              ),
            ),
            ...Object.entries(outside).map(([from, to]) =>
              policy(from, [...to, ...(from === 'app' ? [] : core.map((c) => c.type))]),
            ),
          ],
        },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'localStorage',
        'fetch',
        'performance',
        'setTimeout',
        'setInterval',
        'requestAnimationFrame',
        'process',
        'Buffer',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core has no randomness but a seed.' },
        { object: 'Date', property: 'now', message: 'The core has no clock.' },
      ],
      'no-restricted-imports': ['error', { patterns: [foreign, algebra] }],
    },
  },
  { files: ['src/core/geometry/region.ts'], rules: { 'no-restricted-imports': ['error', { patterns: [foreign] }] } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
    },
  },
  {
    files: ['src/{app,ui}/**/*.{ts,tsx}'],
    rules: {
      'react-hooks/exhaustive-deps': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression > Identifier.arguments[name=/^use[A-Z]/]',
          message:
            'A component that hands a hook over as a value is passed over by the compiler: give that a hook of its own (ui/following.ts).',
        },
      ],
    },
  },
  // The hooks that are meant: they draw nothing.
  { files: ['src/ui/following.ts'], rules: { 'no-restricted-syntax': 'off' } },
];

export default config;
