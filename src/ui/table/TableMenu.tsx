'use client';
import Box from '@mui/material/Box';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { action } from '@/ui/actions/registry';
import { setView, useView } from '@/ui/view';

const menus = {
  items: [
    ['cut-as'],
    ['clip-cut', 'clip-copy', 'clip-paste', 'copy', 'delete'],
    ['group', 'ungroup', 'mirror-upright', 'mirror-level', 'turn-left', 'turn-right', 'centre'],
    ['combine-unite', 'combine-subtract', 'to-outlines', 'letters-along', 'pick-within', 'link'],
  ],
  table: [
    ['clip-paste', 'pick-all', 'import-artwork'],
    ['add-lettering', 'add-rectangle', 'tool-line', 'tool-measure'],
    ['fit', 'paths', 'section'],
  ],
  solid: [
    ['camera-corner', 'camera-top', 'camera-front', 'camera-side', 'camera-under', 'fit'],
    ['view-plan', 'view-both', 'section'],
  ],
  section: [['section-level', 'section-upright'], ['section']],
};

/** What can be done where the second button was pressed: on artwork (on the table or in its list), beside it, on the solid, in the section. */
export function TableMenu() {
  const at = useView((v) => v.menu);
  const close = () => setView({ menu: null });
  return (
    <Menu
      open={!!at}
      onClose={close}
      anchorReference="anchorPosition"
      anchorPosition={at ? { left: at.x, top: at.y } : undefined}
      slotProps={{ list: { dense: true, 'aria-label': 'What can be done here' } }}
    >
      {(at ? menus[at.of] : []).flatMap((part, k) => [
        ...(k ? [<Divider key={`d${k}`} />] : []),
        ...part.map((id) => {
          const a = action(id);
          return (
            <MenuItem
              key={id}
              disabled={a.enabled ? !a.enabled() : false}
              onClick={() => {
                close();
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
