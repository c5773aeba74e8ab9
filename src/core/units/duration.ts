/** Minutes as one says them: 40 s, 12 min, 1 h 51 min. */
export function durationText(minutes: number): string {
  if (minutes < 0.995) return `${Math.max(0, Math.round(60 * minutes))} s`;
  if (minutes < 9.95) return `${+minutes.toFixed(1)} min`;
  const whole = Math.round(minutes);
  const [h, m] = [Math.floor(whole / 60), whole % 60];
  return h ? `${h} h${m ? ` ${m} min` : ''}` : `${m} min`;
}

/** A clock while it runs: m:ss, or h:mm:ss. */
export function clockText(minutes: number): string {
  const s = Math.round(minutes * 60);
  const two = (n: number) => String(n).padStart(2, '0');
  return s >= 3600
    ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`
    : `${Math.floor(s / 60)}:${two(s % 60)}`;
}
