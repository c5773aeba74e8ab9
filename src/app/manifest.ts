import type { MetadataRoute } from 'next';

/** What an operating system has to know of Mirvak to install it. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Mirvak',
    short_name: 'Mirvak',
    description: 'A workbench for sign and plate engravers.',
    start_url: '/',
    display: 'standalone',
    background_color: '#f6f3ec',
    theme_color: '#1e2a2f',
    icons: [
      { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/icons/192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icons/512.png', sizes: '512x512', type: 'image/png' },
    ],
  };
}
