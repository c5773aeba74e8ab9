import { ExchangeError } from '../drawn';

/** A pair of lines of a DXF: what the value is, and the value as it stands. */
export interface Group {
  readonly code: number;
  readonly value: string;
}

/** The number of a group; NaN where it is none. */
export const numberOf = (g: Group | undefined): number => (g && g.value !== '' ? Number(g.value) : NaN);

/**
 * The groups of a text DXF up to its EOF (DXF reference, "Group codes in numerical order"). A file whose pairs have come out of
 * step, or that ends inside a section, is refused with the line. Throws ExchangeError.
 */
export function readGroups(source: string, name: string): Group[] {
  const lines = source.split(/\r\n|\r|\n/);
  while (lines.length && !lines[lines.length - 1].trim()) lines.pop();
  const wrong = (i: number, why: string): never => {
    throw new ExchangeError(name, `it is not a DXF file that can be read: line ${i + 1} ${why}.`);
  };
  const groups: Group[] = [];
  let open = false;
  for (let i = 0; i < lines.length; i += 2) {
    if (!/^\s*-?\d{1,5}\s*$/.test(lines[i])) wrong(i, 'should be a group code, a whole number');
    const code = Number(lines[i]);
    const value = (lines[i + 1] ?? '').trim();
    groups.push({ code, value });
    if (code !== 0) continue;
    if (value === 'EOF') return open ? wrong(i + 1, 'ends the file inside a section') : groups;
    if (value === 'SECTION') {
      if (open) wrong(i + 1, 'begins a section inside a section');
      if (Number(lines[i + 2]) !== 2) wrong(i + 2, 'should name the section (a group 2)');
      open = true;
    } else if (value === 'ENDSEC') open = false;
  }
  return wrong(lines.length - 1, 'is the last one, but the file does not end with EOF');
}
