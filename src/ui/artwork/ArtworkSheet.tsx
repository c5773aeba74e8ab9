'use client';
import ContentCopyRounded from '@mui/icons-material/ContentCopyRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import FilterCenterFocusRounded from '@mui/icons-material/FilterCenterFocusRounded';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { itemKindOf, itemKinds } from '@/core/artwork/registry';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { addItem, centrePicked, changeItem, copyPicked, deletePicked, pickItem } from '@/ui/actions/edits';
import { FieldForm, setAt } from '@/ui/common/FieldForm';
import { LengthField, NumberField, TextField } from '@/ui/common/fields';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { usePlaced } from '@/ui/table/usePlaced';
import { useView } from '@/ui/view';

export function ArtworkSheet() {
  const job = useLater(useOpenJob, (s) => s.job)!;
  const picked = useLater(useView, (v) => v.picked);
  const placed = usePlaced(job.items);
  const item = picked.length === 1 ? job.items.find((i) => i.id === picked[0]) : undefined;
  return (
    <>
      <SheetHead title="Artwork" remark={job.items.length ? `${job.items.length} ${job.items.length === 1 ? 'item' : 'items'}` : ''} />
      <Box sx={{ display: 'flex', gap: 1, px: 2, pb: 1.5, flexWrap: 'wrap' }}>
        {itemKinds.map((k, i) => (
          <Button key={k.id} variant={i === 0 ? 'contained' : 'outlined'} color={i === 0 ? 'primary' : 'inherit'} onClick={() => addItem(k.id)} sx={i === 0 ? undefined : { borderColor: 'var(--mui-palette-line)' }}>
            {k.name}
          </Button>
        ))}
      </Box>
      {!job.items.length && (
        <Empty title="Nothing drawn yet">Add lettering or a shape with the buttons above; it comes to the middle of the blank, ready to be moved.</Empty>
      )}
      <Box component="ul" role="listbox" aria-multiselectable="true" aria-label="Items" sx={{ listStyle: 'none', p: 0, px: 1, m: 0, mb: 1 }}>
        {job.items.map((i) => {
          const on = picked.includes(i.id);
          return (
            <Box component="li" key={i.id} sx={{ display: 'flex', borderRadius: 2, bgcolor: on ? 'var(--mui-palette-wash)' : undefined, '&:hover': { bgcolor: on ? undefined : 'background.paper' } }}>
              <ButtonBase role="option" aria-selected={on} onClick={(e) => pickItem(i.id, e.shiftKey || e.ctrlKey || e.metaKey)} sx={{ flex: 1, justifyContent: 'flex-start', gap: 1, px: 1, py: 0.85, minWidth: 0, borderRadius: 2, fontSize: 13, opacity: i.visible ? 1 : 0.5, fontWeight: on ? 600 : 450 }}>
                <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                  {i.name}
                </Box>
                <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400, whiteSpace: 'nowrap' }}>
                  {itemKindOf(i.kind).name.toLowerCase()}
                </Box>
              </ButtonBase>
              <Tooltip title={i.visible ? 'Hide' : 'Show'}>
                <IconButton size="small" aria-label={`${i.visible ? 'Hide' : 'Show'} ${i.name}`} onClick={() => changeItem(i.id, i.visible ? 'Hide item' : 'Show item', (q) => void (q.visible = !q.visible))}>
                  {i.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
                </IconButton>
              </Tooltip>
            </Box>
          );
        })}
      </Box>
      {picked.length > 0 && (
        <Group
          title={item ? item.name : `${picked.length} items picked`}
          action={
            <>
              <Tooltip title="Centre in the blank">
                <IconButton size="small" aria-label="Centre in the blank" onClick={centrePicked}>
                  <FilterCenterFocusRounded fontSize="small" />
                </IconButton>
              </Tooltip>
              <Tooltip title="Copy">
                <IconButton size="small" aria-label="Copy the picked items" onClick={copyPicked}>
                  <ContentCopyRounded fontSize="small" />
                </IconButton>
              </Tooltip>
              <Tooltip title="Delete">
                <IconButton size="small" aria-label="Delete the picked items" onClick={deletePicked}>
                  <DeleteOutlineRounded fontSize="small" />
                </IconButton>
              </Tooltip>
            </>
          }
        >
          {item ? (
            <Box sx={{ display: 'grid', gap: 1.25 }} key={item.id}>
              <FieldForm
                fields={itemKindOf(item.kind).fields}
                values={item.values}
                unit={job.unit}
                onChange={(key, value, f) =>
                  changeItem(
                    item.id,
                    `Change ${f.label.toLowerCase()}`,
                    (q) => {
                      // A name that was made from the values follows them until the maker gives one.
                      const made = q.name === itemKindOf(q.kind).title(q.values);
                      q.values = setAt(q.values, key, value);
                      if (made) q.name = itemKindOf(q.kind).title(q.values);
                    },
                    f.kind === 'text' ? `text-${item.id}` : undefined,
                  )
                }
              />
              {placed.get(item.id)?.remarks.map((r) => (
                <Typography key={r} role="alert" variant="caption" sx={{ color: 'error.main' }}>
                  {r}
                </Typography>
              ))}
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 1.25 }}>
                <LengthField label="Centre X" value={item.x} unit={job.unit} onChange={(v) => v !== null && changeItem(item.id, 'Move', (q) => void (q.x = v))} />
                <LengthField label="Centre Y" value={item.y} unit={job.unit} onChange={(v) => v !== null && changeItem(item.id, 'Move', (q) => void (q.y = v))} />
                <NumberField label="Turn" unit={'\u00b0'} value={item.angle} min={-360} max={360} onChange={(v) => changeItem(item.id, 'Turn', (q) => void (q.angle = v))} />
              </Box>
              <TextField label="Name in the list" value={item.name} onChange={(v) => changeItem(item.id, 'Rename item', (q) => void (q.name = v), `name-${item.id}`)} />
            </Box>
          ) : (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Drag them on the table, move them with the arrow keys, or centre them together.
            </Typography>
          )}
        </Group>
      )}
    </>
  );
}
