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

const entry = { display: 'block', py: 0.75, breakInside: 'avoid' } as const;

const Entry = ({ name, text }: { name: string; text: string }) => (
  <>
    <Typography sx={{ fontWeight: 550, lineHeight: 1.35 }}>{name}</Typography>
    <Typography
      variant="caption"
      sx={{ display: 'block', color: 'text.secondary', whiteSpace: 'normal', lineHeight: 1.35 }}
    >
      {text}
    </Typography>
  </>
);

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
      slotProps={{
        list: { 'aria-label': 'Kinds of cut', sx: { columnCount: { xs: 1, sm: 2 }, columnGap: 0, py: 0.75 } },
        paper: { sx: { maxWidth: 620 } },
      }}
    >
      {cutKinds.map((k) => (
        <MenuItem key={k.id} onClick={() => addCut(k.id, library, stage === 'artwork')} sx={entry}>
          <Entry name={k.name} text={k.summary} />
        </MenuItem>
      ))}
      <MenuItem onClick={() => setView({ inlay: 'leaning' })} sx={entry}>
        <Entry name="V-inlay" text="A pocket here, and on a blank of its own a plug that goes into it." />
      </MenuItem>
      <MenuItem onClick={() => setView({ inlay: 'upright' })} sx={entry}>
        <Entry name="Straight inlay" text="The same with upright walls, and a plug that is cut free from a plate." />
      </MenuItem>
      <MenuItem onClick={() => setView({ inlay: 'dies' })} sx={entry}>
        <Entry name="Embossing dies" text="A sunk die here and a raised one, a sheet apart when they are closed." />
      </MenuItem>
      <MenuItem onClick={() => setView({ mould: 'picked' })} sx={entry}>
        <Entry name="Mould" text="Floor, leaning walls, lettering and gates of what is to be cast." />
      </MenuItem>
      {recipes.length > 0 && <Divider sx={{ columnSpan: 'all' }} />}
      {recipes.map((r) => (
        <MenuItem key={r.id} onClick={() => applyRecipe(r)} sx={entry}>
          <Entry name={r.name} text={`Your recipe: ${r.cuts.map((c) => c.name).join(', ')}`} />
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
