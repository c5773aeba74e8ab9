// Installs what is missing: packages (once per lock file) and, when asked, Debian's Chromium with Mesa's software driver.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

export function run(command, args, options = {}) {
  const r = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
    ...options,
  });
  if (r.status !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed.`);
    process.exit(r.status ?? 1);
  }
}

/** Runs several at once, each line of commands one after the other; what they say comes when they end. */
export async function together(...lines) {
  const one = ([command, ...args]) =>
    new Promise((done) => {
      const p = spawn(command, args, { cwd: root, env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' } });
      const said = [];
      for (const s of [p.stdout, p.stderr]) s.on('data', (d) => said.push(d));
      p.on('close', (status) => {
        process.stdout.write(Buffer.concat(said));
        if (status === 0) return done();
        console.error(`\n${command} ${args.join(' ')} failed.`);
        process.exit(status ?? 1);
      });
    });
  await Promise.all(
    lines.map(async (line) => {
      for (const command of line) await one(command);
    }),
  );
}

/** What installs the packages of the lock file; nothing where they are there. */
function packagesMissing() {
  const key = createHash('sha256')
    .update(readFileSync(path.join(root, 'package.json')))
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = path.join(root, 'node_modules/.mirvak-installed');
  const line = [];
  if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== key) {
    console.log('Installing packages (a minute or so)...');
    // `npm ci` refuses a lock file that leaves out optional binaries of other platforms; this keeps to the same versions.
    line.push(['npm', 'install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  }
  return { line, done: () => line.length && writeFileSync(stamp, key) };
}

/** What installs Debian's Chromium; nothing where there is one. */
function chromiumMissing() {
  if (existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) return [];
  console.log('Installing Chromium from Debian packages...');
  const apt = [
    ...(process.getuid?.() === 0 ? [] : ['sudo']),
    'env',
    'DEBIAN_FRONTEND=noninteractive',
    'apt-get',
    '-qq',
  ];
  return [
    [...apt, 'update'],
    [...apt, 'install', '-y', '--no-install-recommends', 'chromium', 'libegl1', 'libegl-mesa0', 'libgl1-mesa-dri'],
  ];
}

export function packages() {
  const { line, done } = packagesMissing();
  for (const [command, ...args] of line) run(command, args);
  done();
}

/** Installs both at once: when the packages are there, and when the browser is, which nothing but the interface tests waits for. */
export function installing() {
  const { line, done } = packagesMissing();
  return { packages: together(line).then(done), browser: together(chromiumMissing()) };
}

export async function everything() {
  const { packages, browser } = installing();
  await Promise.all([packages, browser]);
}

/** Builds the app unless what it is built from has not changed. `env`: besides the shell's. */
export function build(env = {}) {
  run('node', ['scripts/assets.mjs']);
  const files = execFileSync(
    'git',
    ['ls-files', '-co', '--exclude-standard', 'src', 'next.config.mjs', 'package-lock.json', 'tsconfig.json'],
    { cwd: root, encoding: 'utf8' },
  )
    .split('\n')
    .filter((f) => f && !/\.test\.tsx?$/.test(f) && existsSync(path.join(root, f)));
  const hash = createHash('sha256');
  for (const f of files) hash.update(f).update(readFileSync(path.join(root, f)));
  const key = hash.digest('hex');
  const stamp = path.join(root, '.next/mirvak-built');
  const built =
    existsSync(stamp) && existsSync(path.join(root, '.next/BUILD_ID')) && readFileSync(stamp, 'utf8') === key;
  if (!built)
    run('node_modules/.bin/next', ['build'], { env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env } });
  run('node', ['scripts/offline.mjs']);
  writeFileSync(stamp, key);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await everything();
}
