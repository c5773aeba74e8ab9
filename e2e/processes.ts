import { readdirSync, readFileSync } from 'node:fs';

/** What the system says of a process (`cmdline`, `stat`, `status`); nothing where it is gone. */
export function saidOf(pid: string, what: string): string {
  try {
    return readFileSync(`/proc/${pid}/${what}`, 'utf8');
  } catch {
    return '';
  }
}

/** All processes of this machine. */
export const processes = (): string[] => readdirSync('/proc').filter((p) => /^\d+$/.test(p));

/** A process and all that it has begun, straight or by others. */
export function processesOf(first: number): string[] {
  const parent = (p: string) => / (\d+)/.exec(saidOf(p, 'stat').replace(/^.*\) \S/, ''))?.[1] ?? '0';
  const under = (p: string): boolean => p !== '0' && (p === String(first) || under(parent(p)));
  return processes().filter(under);
}
