'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useOpenJob } from '@/store/openJob';
import { linkPickedInto, otherSetups } from '@/ui/actions/links';
import { setView, useView } from '@/ui/view';

/** The set-ups that what is picked can be linked into. */
export function LinkMenu() {
  const at = useView((v) => v.linkInto);
  // While it is shut, no change of the job concerns it.
  const whole = useOpenJob((s) => (at ? s.whole : null));
  const shownId = useOpenJob((s) => s.shownId);
  const close = () => setView({ linkInto: null });
  return (
    <Menu
      open={!!at}
      anchorReference="anchorPosition"
      anchorPosition={at ?? undefined}
      onClose={close}
      onClick={close}
      slotProps={{ list: { 'aria-label': 'Link into' } }}
    >
      {otherSetups({ whole, shownId }).map((s) => (
        <MenuItem key={s.id} onClick={() => linkPickedInto(s.id)}>
          {s.name}
        </MenuItem>
      ))}
    </Menu>
  );
}
