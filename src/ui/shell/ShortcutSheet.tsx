'use client';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import Typography from '@mui/material/Typography';
import { actions, type Action } from '@/ui/actions/registry';
import { setView, useView } from '@/ui/view';

const rooms: readonly [string, (a: Action) => boolean][] = [
  ['The job', (a) => /^(undo|redo|commands|shortcuts|export|library|stage-|import)/.test(a.id)],
  ['The view', (a) => /^(view-|fit|paths|section)/.test(a.id)],
  ['Drawing', (a) => /^tool-/.test(a.id)],
  ['What is picked', () => true],
];

const pointer: readonly [string, string][] = [
  ['Zoom at the pointer', 'Wheel, or two fingers'],
  ['Move the view', 'Middle button, or Space and drag'],
  ['Pick more', 'Shift or Ctrl and press'],
  ['Pick one of a group', 'Press twice'],
  ['Catch nothing', 'Alt'],
  ['Leave a copy behind', 'Ctrl when letting go'],
  ['Free the ratio, or hold to 15\u00b0', 'Shift'],
  ['Menu', 'Second button'],
  ['A guide', 'Drag out of a ruler'],
];

/** Every shortcut on one sheet. */
export function ShortcutSheet() {
  const open = useView((v) => v.shortcuts);
  const left = new Set(actions.filter((a) => a.shortcut));
  const parts = rooms.map(([name, is]) => {
    const list = [...left].filter(is);
    list.forEach((a) => left.delete(a));
    return [name, list.map((a) => [a.name, a.shortcut!.replaceAll('+', ' ').replace('Arrow', '')])] as const;
  });
  return (
    <Dialog
      open={open}
      onClose={() => setView({ shortcuts: false })}
      maxWidth="md"
      fullWidth
      slotProps={{ paper: { 'aria-label': 'Shortcuts' } }}
    >
      <Box sx={{ p: 3, columnCount: { xs: 1, sm: 2 }, columnGap: 5 }}>
        {[...parts, ['With the pointer', pointer] as const].map(([name, rows]) => (
          <Box key={name} sx={{ breakInside: 'avoid', mb: 2.5 }}>
            <Typography variant="h3" sx={{ mb: 0.75, fontSize: 14 }}>
              {name}
            </Typography>
            {rows.map(([what, key]) => (
              <Box key={what} sx={{ display: 'flex', gap: 2, py: 0.3, fontSize: 13 }}>
                <Box sx={{ flex: 1 }}>{what}</Box>
                <Box component="kbd" sx={{ font: 'inherit', color: 'text.secondary', whiteSpace: 'nowrap' }}>
                  {key}
                </Box>
              </Box>
            ))}
          </Box>
        ))}
      </Box>
    </Dialog>
  );
}
