'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Cutter } from '@/core/cutters/cutter';
import type { Comparison } from '@/core/exchange/cutterSheet';

/** What a file of cutters would do to the library, before it does it. */
export function ImportPreview({
  file,
  found,
  onTake,
  onLeave,
}: {
  file: string;
  found: Comparison;
  onTake: (cutters: Cutter[]) => void;
  onLeave: () => void;
}) {
  const { fresh, changed, same, refused } = found;
  const list = (title: string, names: string[], colour?: string) =>
    names.length > 0 && (
      <Box>
        <Typography variant="h3" sx={{ color: colour }}>
          {names.length} {title}
        </Typography>
        <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5, fontSize: 13, maxHeight: 180, overflowY: 'auto' }}>
          {names.map((n, i) => (
            <li key={i}>{n}</li>
          ))}
        </Box>
      </Box>
    );
  return (
    <Box role="region" aria-label="What the file holds" sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
      <Typography variant="h2" component="h2">
        {file}
      </Typography>
      {list(
        'new',
        fresh.map((c) => c.name),
      )}
      {list(
        'changed',
        changed.map((c) => c.name),
      )}
      {list(
        'as they are here',
        same.map((c) => c.name),
      )}
      {list(
        'refused',
        refused.map((r) => `${r.where}: ${r.why}`),
        'error.main',
      )}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="contained"
          disabled={!fresh.length && !changed.length}
          onClick={() => onTake([...fresh, ...changed])}
        >
          Take {fresh.length + changed.length} {fresh.length + changed.length === 1 ? 'cutter' : 'cutters'}
        </Button>
        {changed.length > 0 && fresh.length > 0 && (
          <Button variant="outlined" onClick={() => onTake(fresh)}>
            Only the new ones
          </Button>
        )}
        <Button color="inherit" onClick={onLeave}>
          Leave the library as it is
        </Button>
      </Box>
    </Box>
  );
}
