// Writes the service worker of a build: its parts, by name, and what it does with them. With `--none`, one that takes away what
// an earlier one has kept: while one works on Mirvak the server is the one to ask.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const below = (dir) =>
  readdirSync(path.join(root, dir), { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile())
    .map((f) => path.relative(path.join(root, dir), path.join(f.parentPath, f.name)).split(path.sep).join('/'))
    .sort();

const out = path.join(root, 'public/offline.js');
function ofBuild() {
  const made = below('.next/static').map((f) => `/_next/static/${f}`);
  const given = below('public')
    .filter((f) => f !== 'offline.js')
    .map((f) => `/${f}`);
  const files = ['/', '/library', '/job/_', '/icon.svg', '/manifest.webmanifest', ...made, ...given];
  const does = readFileSync(path.join(root, 'scripts/offlineWorker.js'), 'utf8');
  const hash = createHash('sha256').update(JSON.stringify(files)).update(does);
  for (const f of given) hash.update(readFileSync(path.join(root, 'public', f)));
  const name = `mirvak-${hash.digest('hex').slice(0, 12)}`;
  return `const NAME = '${name}';\nconst FILES = ${JSON.stringify(files, null, 1)};\n${does}`;
}
const none = `self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (e) => {
  const leave = async () => {
    for (const k of await caches.keys()) await caches.delete(k);
    await self.registration.unregister();
    for (const c of await self.clients.matchAll()) void c.navigate(c.url);
  };
  e.waitUntil(leave());
});
`;
writeFileSync(out, process.argv[2] === '--none' ? none : ofBuild());
