import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { LevelFloor } from '@/core/job/levelFloors';
import { areaText, lengthText, type Unit } from '@/core/units/length';
import { FlagField } from '@/ui/common/fields';

/** Level floors of a relief, each of which may be cleared by end mills. */
export function MouldFloors(p: {
  /** Null while they are looked for. */
  readonly floors: readonly LevelFloor[] | null;
  readonly more: number;
  /** Why nothing can be told of them; empty where it can. */
  readonly why: string;
  readonly taken: readonly LevelFloor[];
  readonly unit: Unit;
  /** From the top face, mm: the face as it is left. */
  readonly face: number;
  readonly onTake: (floors: LevelFloor[]) => void;
}) {
  const says = !p.floors
    ? 'Looking for level floors in the relief\u2026'
    : p.why
      ? p.why
      : p.floors.length
        ? 'Level floors of the relief, cleared by end mills. Depths are below the face as it is left.'
        : 'Nothing of the relief is level below the face.';
  return (
    <Box role="group" aria-label="Level floors">
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {says}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(190px, 1fr))' }}>
        {p.floors?.map((f, k) => (
          <FlagField
            key={k}
            label={`${lengthText(-f.height - p.face, p.unit)} deep, ${areaText(f.area, p.unit)}`}
            value={p.taken.includes(f)}
            onChange={(on) => p.onTake(p.floors!.filter((q) => (q === f ? on : p.taken.includes(q))))}
          />
        ))}
      </Box>
      {p.more > 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {`${p.more} smaller ${p.more === 1 ? 'one is' : 'ones are'} left to what is sculpted.`}
        </Typography>
      )}
    </Box>
  );
}
