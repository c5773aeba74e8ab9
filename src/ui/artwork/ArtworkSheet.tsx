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
import { itemKinds } from '@/core/artwork/registry';
import { useOpenJob } from '@/store/openJob';
import { deletePicked } from '@/ui/actions/edits';
import { addItem } from '@/ui/actions/add';
import { centrePicked, copyPicked } from '@/ui/actions/artwork';
import { letteringAndLine, setAlongPicked } from '@/ui/actions/lettering';
import { otherSetups } from '@/ui/actions/links';
import { action } from '@/ui/actions/registry';
import { cutAsBelow } from '@/ui/cuts/CutAsMenu';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { usePlaced } from '@/ui/table/usePlaced';
import { OfPicked } from '@/ui/common/OfPicked';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { ArrangePanel } from './ArrangePanel';
import { GaugePanel } from './GaugePanel';
import { ItemList } from './ItemList';
import { ItemSheet } from './ItemSheet';
import { MeasuresPanel } from './MeasuresPanel';
import { OffBlank } from './OffBlank';
import { ShapePanel } from './ShapePanel';
import { LinkDialog } from './LinkDialog';
import { TraceDialog } from './TraceDialog';

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

/** What can be done with what is picked, whatever that is. */
const WithPicked = memo(function WithPicked() {
  return (
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
  );
});

export function ArtworkSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const picked = useViewLater((v) => v.picked);
  const placed = usePlaced(job.items);
  const tracing = useViewLater((v) => v.tracing);
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
        <Group title={item ? item.name : `${picked.length} items picked`} action={<WithPicked />}>
          {item ? (
            <OfPicked which={(v) => v.picked} shown={picked}>
              <ItemSheet key={item.id} item={item} remarks={placed.get(item.id)?.remarks} />
            </OfPicked>
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
