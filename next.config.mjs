/** Cross-origin isolation lets workers see at once that their work is no longer wanted (shared memory). */
const isolation = [
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
];

const config = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // The tests look at the types before they build.
  typescript: { ignoreBuildErrors: process.env.MIRVAK_TYPES_LOOKED_AT === '1' },
  headers: async () => [{ source: '/:path*', headers: isolation }],
};

export default config;
