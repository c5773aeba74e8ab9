import { local } from './local';

const KEY = 'mirvak-set-up-shown';

/** Notes which set-up of a job a window shows, so that it is shown again when the job is opened next. */
export function rememberShown(jobId: string, setupId: string): void {
  try {
    local().setItem(KEY, JSON.stringify([jobId, setupId]));
  } catch {
    // Without room for it the first is shown.
  }
}

/** The set-up of a job that was shown last; null where another job was open since. */
export function lastShown(jobId: string): string | null {
  try {
    const [of, shown] = JSON.parse(local().getItem(KEY) ?? '[]') as unknown[];
    return of === jobId && typeof shown === 'string' ? shown : null;
  } catch {
    return null;
  }
}
