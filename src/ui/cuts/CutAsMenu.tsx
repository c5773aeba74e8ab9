'use client';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { cutKinds } from '@/core/cuts/registry';
import { addCut, applyRecipe } from '@/ui/actions/edits';
import { useShelf } from '@/ui/common/useShelf';
import { useLibrary } from '@/ui/library/useLibrary';
import { setView, useView } from '@/ui/view';

/** The kinds of cut, and the maker's recipes, for what is picked. Where artwork is drawn one goes on drawing. */
export function CutAsMenu() {
  const at = useView((v) => v.cutAs);
  const stage = useView((v) => v.stage);
  const library = useLibrary((l) => l.cutters);
  const { kept: recipes } = useShelf('recipes');
  const close = () => setView({ cutAs: null });
  return (
    <Menu
      open={!!at}
      anchorReference="anchorPosition"
      anchorPosition={at ?? undefined}
      onClose={close}
      onClick={close}
      slotProps={{ list: { 'aria-label': 'Kinds of cut' } }}
    >
      {cutKinds.map((k) => (
        <MenuItem
          key={k.id}
          onClick={() => addCut(k.id, library, stage === 'artwork')}
          sx={{ display: 'block', maxWidth: 300 }}
        >
          <Typography sx={{ fontWeight: 550 }}>{k.name}</Typography>
          <Typography variant="caption" sx={{ color: 'text.secondary', whiteSpace: 'normal' }}>
            {k.summary}
          </Typography>
        </MenuItem>
      ))}
      {recipes.length > 0 && <Divider />}
      {recipes.map((r) => (
        <MenuItem key={r.id} onClick={() => applyRecipe(r)} sx={{ display: 'block', maxWidth: 300 }}>
          <Typography sx={{ fontWeight: 550 }}>{r.name}</Typography>
          <Typography variant="caption" sx={{ color: 'text.secondary', whiteSpace: 'normal' }}>
            Your recipe: {r.cuts.map((c) => c.name).join(', ')}
          </Typography>
        </MenuItem>
      ))}
    </Menu>
  );
}

/** Opens the menu of kinds below a button. */
export const cutAsBelow = (button: HTMLElement): void => {
  const b = button.getBoundingClientRect();
  setView({ cutAs: { left: b.left, top: b.bottom + 4 } });
};
