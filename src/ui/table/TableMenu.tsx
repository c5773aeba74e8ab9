'use client';
import Box from '@mui/material/Box';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { action } from '@/ui/actions/registry';
import { setView } from '@/ui/view';

const onItems = [['cut-as'], ['clip-cut', 'clip-copy', 'clip-paste', 'copy', 'delete'], ['group', 'ungroup', 'mirror-upright', 'mirror-level', 'turn-left', 'turn-right', 'centre'], ['combine-unite', 'combine-subtract', 'to-outlines', 'letters-along', 'pick-within']];
const onTable = [['clip-paste', 'pick-all', 'import-artwork'], ['add-lettering', 'add-rectangle', 'tool-line', 'tool-measure'], ['fit', 'paths', 'section']];

/** What can be done where the table was pressed with the second button. */
export function TableMenu({ at, onItem, onClose }: { at: { x: number; y: number } | null; onItem: boolean; onClose: () => void }) {
  return (
    <Menu open={!!at} onClose={onClose} anchorReference="anchorPosition" anchorPosition={at ? { left: at.x, top: at.y } : undefined} slotProps={{ list: { dense: true, 'aria-label': 'Menu of the table' } }}>
      {(onItem ? onItems : onTable).flatMap((part, k) => [
        ...(k ? [<Divider key={`d${k}`} />] : []),
        ...part.map((id) => {
          const a = action(id);
          return (
            <MenuItem
              key={id}
              disabled={a.enabled ? !a.enabled() : false}
              onClick={() => {
                onClose();
                // The kinds of cut come where this menu was.
                if (id === 'cut-as' && at) setView({ cutAs: { left: at.x, top: at.y } });
                else a.run();
              }}
              sx={{ gap: 3 }}
            >
              <Box sx={{ flex: 1 }}>{a.name}</Box>
              <Box component="kbd" sx={{ font: 'inherit', fontSize: 12, color: 'text.secondary' }}>
                {a.shortcut?.replaceAll('+', ' ')}
              </Box>
            </MenuItem>
          );
        }),
      ])}
    </Menu>
  );
}
