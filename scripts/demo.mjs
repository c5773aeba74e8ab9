// `npm run demo`: installs what is missing, builds, starts the app with the demo jobs on its shelf, and prints the address.
import { spawn } from 'node:child_process';
import net from 'node:net';
import { build, packages, root } from './setup.mjs';

packages();
build();

const free = (port) =>
  new Promise((resolve) => {
    const s = net.createServer();
    s.once('error', () => resolve(port < 65000 ? free(port + 1) : 0));
    s.listen(port, '127.0.0.1', () => s.close(() => resolve(port)));
  });
const port = await free(Number(process.env.PORT ?? 3000));
const server = spawn('npx', ['next', 'start', '-H', '127.0.0.1', '-p', String(port)], {
  cwd: root,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
server.stdout.on('data', (d) => {
  if (String(d).includes('Ready'))
    console.log(
      `\nMirvak is running at http://localhost:${port}\nThe demo jobs are on the job shelf. Stop it with Ctrl+C.`,
    );
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
