export default async function stop() {
  globalThis.__mirvakServer?.kill('SIGTERM');
}
