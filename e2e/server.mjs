// Starts the built app on a free port of this machine for the interface tests.
import { spawn } from 'node:child_process';
import net from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

export async function startServer() {
  const port = await new Promise((resolve) => {
    const s = net.createServer();
    s.listen(0, '127.0.0.1', () => {
      const { port } = s.address();
      s.close(() => resolve(port));
    });
  });
  const server = spawn(
    process.execPath,
    [path.join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
    {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
    },
  );
  await new Promise((resolve, reject) => {
    server.stdout.on('data', (d) => String(d).includes('Ready') && resolve());
    server.on('exit', (code) => reject(new Error(`The server stopped with ${code}. Is the app built?`)));
  });
  return { url: `http://localhost:${port}`, server };
}

export default async function setup() {
  const { url, server } = await startServer();
  process.env.MIRVAK_URL = url;
  globalThis.__mirvakServer = server;
}
