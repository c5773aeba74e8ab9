'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import Typography from '@mui/material/Typography';
import { formatLength } from '@/core/units/length';
import { setView, useView } from '@/ui/view';

const units: readonly [string, number][] = [
  ['Millimetres', 1],
  ['Centimetres', 10],
  ['Metres', 1000],
  ['Inches', 25.4],
  ['Feet', 304.8],
];

/** Asks for the unit of a file that does not say it, or says an absurd one: each answer shows the size that comes of it. */
export function UnitQuestion() {
  const asked = useView((v) => v.unitQuestion);
  const answer = (unit: number | null) => {
    asked?.answer(unit);
    setView({ unitQuestion: null });
  };
  return (
    <Dialog
      open={!!asked}
      onClose={() => answer(null)}
      maxWidth="xs"
      fullWidth
      slotProps={{ paper: { 'aria-label': 'Unit of the file' } }}
    >
      {asked && (
        <Box sx={{ p: 3 }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            How large is it?
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 2 }}>
            {asked.says}
          </Typography>
          <Box sx={{ display: 'grid', gap: 0.75 }}>
            {[...(asked.fitting ? [['Fitted into the blank', asked.fitting] as const] : []), ...units].map(
              ([name, mm]) => (
                <Button
                  key={name}
                  variant="outlined"
                  color="inherit"
                  onClick={() => answer(mm)}
                  sx={{ justifyContent: 'space-between', borderColor: 'var(--mui-palette-line)', px: 1.75 }}
                >
                  {name}
                  <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
                    {formatLength(asked.width * mm, 'mm', 1)} {'\u00d7'} {formatLength(asked.height * mm, 'mm', 1)} mm
                  </Box>
                </Button>
              ),
            )}
          </Box>
          <Button color="inherit" onClick={() => answer(null)} sx={{ mt: 1.5, color: 'text.secondary' }}>
            Leave the file alone
          </Button>
        </Box>
      )}
    </Dialog>
  );
}
