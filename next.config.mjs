import { stamp } from './scripts/stamp.mjs';

/** Cross-origin isolation lets workers see at once that their work is no longer wanted (shared memory). */
const isolation = [
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
];

/**
 * A worker obeys the policy that its own script comes with, not the page's: no connection but to this server, and nothing is
 * run that is not one of its files.
 */
const workers = {
  key: 'Content-Security-Policy',
  value: "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; worker-src 'self'",
};

const config = {
  reactStrictMode: true,
  // What has not changed is not drawn again, without a word of it in the components.
  reactCompiler: true,
  poweredByHeader: false,
  // The server stands on the maker's own device: packing what it sends would only cost time at both ends.
  compress: false,
  env: { MIRVAK_STAMP: stamp() },
  devIndicators: false,
  // The tests look at the types before they build.
  typescript: { ignoreBuildErrors: process.env.MIRVAK_TYPES_LOOKED_AT === '1' },
  headers: async () => [
    { source: '/:path*', headers: isolation },
    { source: '/_next/static/:path*', headers: [workers] },
  ],
};

export default config;
