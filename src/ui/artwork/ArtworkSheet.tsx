'use client';
import ContentCopyRounded from '@mui/icons-material/ContentCopyRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import FilterCenterFocusRounded from '@mui/icons-material/FilterCenterFocusRounded';
import LinkRounded from '@mui/icons-material/LinkRounded';
import UploadFileRounded from '@mui/icons-material/UploadFileRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { memo, useState } from 'react';
import { itemKindOf, itemKinds } from '@/core/artwork/registry';
import { fontCatalogue, strokeFonts } from '@/core/lettering/catalogue';
import { useOpenJob } from '@/store/openJob';
import { changeItem, deletePicked } from '@/ui/actions/edits';
import { addItem } from '@/ui/actions/add';
import { centrePicked, copyPicked } from '@/ui/actions/artwork';
import { chooseFont, letteringAndLine, setAlongPicked } from '@/ui/actions/lettering';
import { otherSetups } from '@/ui/actions/links';
import { action } from '@/ui/actions/registry';
import { cutAsBelow } from '@/ui/cuts/CutAsMenu';
import { assetsOf } from '@/core/job/assets';
import { setAt } from '@/core/units/fields';
import { FieldForm } from '@/ui/common/FieldForm';
import { LengthField, NumberField, TextField } from '@/ui/common/fields';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { useDatum } from '@/ui/common/useDatum';
import { usePlaced } from '@/ui/table/usePlaced';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { ArrangePanel } from './ArrangePanel';
import { GaugePanel } from './GaugePanel';
import { ItemList } from './ItemList';
import { LetterSpaces } from './LetterSpaces';
import { MeasuresPanel } from './MeasuresPanel';
import { OffBlank } from './OffBlank';
import { RoundPlaces } from './RoundPlaces';
import { ShapePanel } from './ShapePanel';
import { BehindIt } from './BehindIt';
import { FollowsIt } from './FollowsIt';
import { LinkDialog } from './LinkDialog';
import { TraceDialog } from './TraceDialog';

const shippedFonts = [
  ...fontCatalogue.map((f) => ({ value: f.id, label: f.name, group: 'Outlines' })),
  ...strokeFonts.map((f) => ({ value: f.id, label: f.name, group: 'Single line, engraved in one stroke' })),
];
const offered = itemKinds.filter((k) => k.offered !== false);

/** A button for each kind of artwork. */
const NewItems = memo(function NewItems() {
  return (
    <Box sx={{ display: 'flex', gap: 0.75, px: 2, pb: 1, flexWrap: 'wrap' }}>
      {offered.map((k, i) => (
        <Button
          key={k.id}
          size="small"
          variant={i === 0 ? 'contained' : 'outlined'}
          color={i === 0 ? 'primary' : 'inherit'}
          onClick={() => addItem(k.id)}
          sx={{ px: 1.25, fontSize: 13, ...(i === 0 ? {} : { borderColor: 'var(--mui-palette-line)' }) }}
        >
          {k.name}
        </Button>
      ))}
    </Box>
  );
});

export function ArtworkSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const picked = useViewLater((v) => v.picked);
  const placed = usePlaced(job.items);
  const tracing = useViewLater((v) => v.tracing);
  const asked = useViewLater((v) => v.typing);
  const origin = useDatum(job);
  const [gauging, setGauging] = useState(false);
  const [linking, setLinking] = useState<ReturnType<typeof otherSetups> | null>(null);
  const item = picked.length === 1 ? job.items.find((i) => i.id === picked[0]) : undefined;
  return (
    <>
      <SheetHead
        title="Artwork"
        remark={job.items.length ? `${job.items.length} ${job.items.length === 1 ? 'item' : 'items'}` : ''}
      />
      <NewItems />
      <Box sx={{ px: 2, pb: 1.5 }}>
        <Button
          size="small"
          color="inherit"
          startIcon={<UploadFileRounded />}
          onClick={action('import-artwork').run}
          sx={{ fontSize: 13, color: 'text.secondary' }}
        >
          Import or trace a file
        </Button>
        {!job.at.only && (
          <Button
            size="small"
            color="inherit"
            startIcon={<LinkRounded />}
            onClick={() => setLinking(otherSetups(useOpenJob.getState()))}
            sx={{ fontSize: 13, color: 'text.secondary' }}
          >
            Link from another set-up
          </Button>
        )}
      </Box>
      {!job.items.length && (
        <Empty title="Nothing drawn yet">
          Add lettering or a shape with the buttons above; it comes to the middle of the blank, ready to be moved. SVG,
          DXF and pictures can be dropped on the table.
        </Empty>
      )}
      <ItemList job={job} picked={picked} placed={placed} />
      <OffBlank job={job} placed={placed} />
      {picked.length > 0 && (
        <Group
          title={item ? item.name : `${picked.length} items picked`}
          action={
            <>
              <Button
                size="small"
                variant="outlined"
                aria-haspopup="menu"
                onClick={(e) => cutAsBelow(e.currentTarget)}
                sx={{ mr: 0.5, whiteSpace: 'nowrap' }}
              >
                Cut this as
              </Button>
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
              {item.kind === 'lettering' && <RoundPlaces item={item} />}
              <FollowsIt item={item} />
              <FieldForm
                fields={itemKindOf(item.kind).fields}
                values={item.values}
                unit={job.unit}
                asked={asked?.id === item.id ? asked.n : undefined}
                fonts={[
                  ...shippedFonts,
                  ...assetsOf(job, 'font').map((f) => ({ value: f.id, label: f.name, group: 'Of this job' })),
                ]}
                onChange={(key, value, f) =>
                  changeItem(
                    item.id,
                    `Change ${f.label.toLowerCase()}`,
                    (q) => {
                      // A name that was made from the values follows them until the maker gives one.
                      const made = q.name === itemKindOf(q.kind).title(q.values);
                      const before = q.values;
                      q.values = setAt(q.values, key, value);
                      q.values = (itemKindOf(q.kind).changed?.(q.values, before) ?? q.values) as typeof q.values;
                      if (made) q.name = itemKindOf(q.kind).title(q.values);
                    },
                    f.kind === 'text' ? `text-${item.id}` : undefined,
                  )
                }
              />
              {item.kind === 'lettering' && (
                <>
                  <Button
                    size="small"
                    color="inherit"
                    onClick={chooseFont}
                    sx={{ justifySelf: 'start', fontSize: 13, color: 'text.secondary' }}
                  >
                    Add a font file
                  </Button>
                  <LetterSpaces item={item} />
                </>
              )}
              <BehindIt job={job} item={item} />
              {placed.get(item.id)?.remarks.map((r) => (
                <Typography key={r} role="alert" variant="caption" sx={{ color: 'error.main' }}>
                  {r}
                </Typography>
              ))}
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
                <LengthField
                  label="Centre X"
                  value={item.x - origin.x}
                  unit={job.unit}
                  onChange={(v) => v !== null && changeItem(item.id, 'Move', (q) => void (q.x = v + origin.x))}
                />
                <LengthField
                  label="Centre Y"
                  value={item.y - origin.y}
                  unit={job.unit}
                  onChange={(v) => v !== null && changeItem(item.id, 'Move', (q) => void (q.y = v + origin.y))}
                />
                <NumberField
                  label="Rotation"
                  unit={'\u00b0'}
                  value={item.angle}
                  min={-360}
                  max={360}
                  onChange={(v) => changeItem(item.id, 'Turn', (q) => void (q.angle = v))}
                />
              </Box>
              <TextField
                label="Name in the list"
                value={item.name}
                onChange={(v) => changeItem(item.id, 'Rename item', (q) => void (q.name = v), `name-${item.id}`)}
              />
            </Box>
          ) : (
            <>
              {picked.length === 2 && letteringAndLine(job.items.filter((i) => picked.includes(i.id))) && (
                <Button size="small" variant="outlined" onClick={setAlongPicked} sx={{ mb: 1 }}>
                  Set letters along the line
                </Button>
              )}
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                Drag them on the table, move them with the arrow keys, or centre them together.
              </Typography>
            </>
          )}
        </Group>
      )}
      {picked.length > 0 && (
        <>
          <Group title="Arrange">
            <ArrangePanel job={job} count={picked.length} />
          </Group>
          <Group title="Outlines">
            <ShapePanel
              unit={job.unit}
              count={picked.length}
              hasLines={picked.some((id) => placed.get(id)?.shape.paths.some((p) => !p.closed))}
            />
          </Group>
          <Group title="Measures">
            <MeasuresPanel picked={picked} placed={placed} unit={job.unit} />
          </Group>
          <Group
            title="Gap gauge"
            action={
              <Button size="small" onClick={() => setGauging(!gauging)}>
                {gauging ? 'Close' : 'Measure widths'}
              </Button>
            }
          >
            {gauging ? (
              <GaugePanel items={job.items.filter((i) => picked.includes(i.id))} unit={job.unit} />
            ) : (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                How wide strokes and gaps are, and which cutters get between them.
              </Typography>
            )}
          </Group>
        </>
      )}
      {linking && <LinkDialog setups={linking} onClose={() => setLinking(null)} />}
      {tracing && (
        <TraceDialog
          job={job}
          of={tracing}
          key={tracing instanceof File ? `${tracing.name} ${tracing.lastModified}` : tracing.again}
        />
      )}
    </>
  );
}
