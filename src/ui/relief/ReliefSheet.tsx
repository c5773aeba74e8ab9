'use client';
import BookmarkAddOutlined from '@mui/icons-material/BookmarkAddOutlined';
import BlurOnRounded from '@mui/icons-material/BlurOnRounded';
import BrushOutlined from '@mui/icons-material/BrushOutlined';
import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined';
import FlipRounded from '@mui/icons-material/FlipRounded';
import FolderOutlined from '@mui/icons-material/FolderOutlined';
import FilterVintageOutlined from '@mui/icons-material/FilterVintageOutlined';
import FormatShapesRounded from '@mui/icons-material/FormatShapesRounded';
import ImageOutlined from '@mui/icons-material/ImageOutlined';
import LandscapeOutlined from '@mui/icons-material/LandscapeOutlined';
import TimelineRounded from '@mui/icons-material/TimelineRounded';
import VerticalAlignCenterRounded from '@mui/icons-material/VerticalAlignCenterRounded';
import WavesRounded from '@mui/icons-material/WavesRounded';
import ViewInArRounded from '@mui/icons-material/ViewInArRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { OneSetup } from '@/core/job/job';
import { reliefCell } from '@/core/pipeline/shaping';
import { gridOf } from '@/core/relief/field';
import { arranged, counting, groupOf, membersOf } from '@/core/relief/groups';
import { formKindOf, formKinds } from '@/core/relief/registry';
import { formatLength } from '@/core/units/length';
import { After, turns } from '@/ui/later';
import { action } from '@/ui/actions/registry';
import { moveForm, reliefFormats, setReliefCell, setReliefShrinks, type ReliefFormat } from '@/ui/actions/relief';
import { keepRelief } from '@/ui/actions/reliefLibrary';
import { LengthField, NumberField } from '@/ui/common/fields';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { WorkLeft } from '@/ui/common/Waiting';
import { SortableList } from '@/ui/common/SortableList';
import { OfPicked } from '@/ui/common/OfPicked';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { FinestCutter } from './FinestCutter';
import { FormEditor } from './FormEditor';
import { FormRow } from './FormRow';
import { Readings } from './Readings';
import { ReliefLibrary } from './ReliefLibrary';
import { ReliefOutlines } from './ReliefOutlines';
import { SeeingIt } from './SeeingIt';
import { ThicknessGauge } from './ThicknessGauge';

const icons: Readonly<Record<string, React.ReactNode>> = {
  outline: <FormatShapesRounded />,
  swept: <TimelineRounded />,
  mesh: <ViewInArRounded />,
  ground: <LandscapeOutlined />,
  texture: <WavesRounded />,
  picture: <ImageOutlined />,
  ornament: <FilterVintageOutlined />,
  sculpt: <BrushOutlined />,
  denoise: <BlurOnRounded />,
  limit: <VerticalAlignCenterRounded />,
  turned: <FlipRounded />,
  group: <FolderOutlined />,
};

/** What a resolution costs, in words. */
function costOf(job: OneSetup): string {
  const cell = reliefCell(job);
  const { cols, rows } = gridOf(job.blank.width, job.blank.height, cell);
  const nodes = cols * rows;
  const held = job.relief.cell !== null && cell > job.relief.cell + 1e-9;
  return (
    `${(nodes / 1e6).toFixed(nodes < 1e6 ? 2 : 1)} million nodes; each form takes ${Math.ceil((4 * nodes) / 1e6)} MB` +
    (held ? `. So fine does not fit: they lie ${formatLength(cell, job.unit)} ${job.unit} apart` : '')
  );
}

/** Buttons that add a form stand in columns, their icons in line. */
const TILE = {
  justifyContent: 'flex-start',
  px: 0.75,
  fontSize: 12.5,
  lineHeight: 1.15,
  textAlign: 'left',
  borderColor: 'divider',
  '& .MuiButton-startIcon': { ml: 0, mr: 0.75 },
};

/** The relief: its forms like strata, the uppermost first, how it lies in the thickness, and the form that is open. */
export function ReliefSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const formId = useViewLater((v) => v.formId);
  const relief = useWorkLater((w) => w.relief);
  const { forms } = job.relief;
  const open = forms.find((f) => f.id === formId);
  const folded = useViewLater((v) => v.foldedForms);
  const shown = arranged(forms)
    .reverse()
    .filter((f) => !folded.includes(groupOf(forms, f)?.id ?? ''));
  const facts = relief?.shaped.facts;
  const pixels = relief?.shaped.pixels ?? {};
  /** Forms that have detail of their own. */
  const made = counting(forms).filter((f) => !formKindOf(f.kind).adjusts && !formKindOf(f.kind).holds);
  return (
    <>
      <SheetHead
        title="Relief"
        remark={
          facts && facts.covered > 0 ? `${formatLength(facts.highest - facts.lowest, job.unit)} ${job.unit} high` : ''
        }
      />
      {!forms.length && (
        <Empty title="No relief yet">
          Drop a mesh (STL, OBJ, 3MF or glTF) or a picture on the table, raise picked lettering and outlines, or begin
          with an ornament. Forms lie on each other like strata.
        </Empty>
      )}
      <Box
        sx={{
          px: 1.5,
          pb: 1.25,
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(104px, 1fr))',
          gap: 0.75,
        }}
      >
        {formKinds
          .filter((k) => !k.adjusts || forms.length > 0)
          .map((k) => (
            <Button
              key={k.id}
              size="small"
              variant="outlined"
              color="inherit"
              sx={TILE}
              title={k.summary}
              startIcon={icons[k.id]}
              onClick={action(`form-${k.id}`).run}
            >
              {k.name}
            </Button>
          ))}
      </Box>
      <SortableList
        label="Forms"
        ids={shown.map((f) => f.id)}
        move={moveForm}
        sx={{ gap: 0.5, pb: forms.length ? 1.5 : 0 }}
      >
        {shown.map((f) => (
          <FormRow key={f.id} form={f} held={membersOf(forms, f.id).length} within={groupOf(forms, f)} />
        ))}
      </SortableList>
      <WorkLeft />
      <ReliefLibrary />
      {open && (
        <OfPicked which={(v) => v.formId} shown={formId}>
          <FormEditor key={open.id} form={open} />
        </OfPicked>
      )}
      {relief && facts && facts.covered > 0 && (
        <Group title="In the thickness">
          <ThicknessGauge facts={facts} blank={job.blank} unit={job.unit} />
          <Box role="group" aria-label="Export" sx={{ mt: 1.25, display: 'flex', flexWrap: 'wrap', gap: 1 }}>
            {(Object.keys(reliefFormats) as ReliefFormat[]).map((format) => (
              <Button
                key={format}
                size="small"
                color="inherit"
                variant="outlined"
                startIcon={<FileDownloadOutlined />}
                disabled={!relief.fine}
                aria-label={`Export as ${reliefFormats[format]}`}
                onClick={action(`export-relief-${format}`).run}
              >
                {reliefFormats[format]}
              </Button>
            ))}
            <Button
              size="small"
              color="inherit"
              variant="outlined"
              startIcon={<BookmarkAddOutlined />}
              onClick={() => void keepRelief(null)}
            >
              Keep all of it in the library
            </Button>
            <Button size="small" color="inherit" variant="outlined" onClick={action('relief-mould').run}>
              Make a mould of it
            </Button>
          </Box>
        </Group>
      )}
      <After turn={turns.below} once="seeing a relief">
        {relief && facts && facts.covered > 0 && (
          <Group title="Seeing it">
            <SeeingIt field={relief.shaped.field} />
          </Group>
        )}
      </After>
      <After turn={turns.below} once="readings">
        {relief && facts && facts.covered > 0 && (
          <Group title="Readings">
            <Readings job={job} field={relief.shaped.field} />
          </Group>
        )}
        {forms.length > 0 && (
          <Group title="Resolution">
            <LengthField
              label="Nodes lie apart"
              value={job.relief.cell}
              unit={job.unit}
              min={0.01}
              max={10}
              optional={`as proposed, ${formatLength(reliefCell(job), job.unit, job.unit === 'mm' ? 2 : 4)}`}
              hint={costOf(job)}
              onChange={setReliefCell}
            />
            <NumberField
              label="Shrinkage allowance"
              value={job.relief.shrinks ?? 0}
              unit="%"
              min={0}
              max={10}
              hint="Of what is cast in it: the whole relief is larger by that, from the middle of the top face"
              onChange={setReliefShrinks}
            />
            <FinestCutter
              job={job}
              pixel={Math.max(0, ...Object.values(pixels))}
              finestPixel={
                made.length && made.every((f) => pixels[f.id]) ? Math.min(...made.map((f) => pixels[f.id])) : 0
              }
            />
          </Group>
        )}
      </After>
      <After turn={turns.below} once="outlines of a relief">
        {relief && facts && facts.covered > 0 && (
          <Group title="Outlines of the relief">
            <ReliefOutlines job={job} field={relief.shaped.field} ready={relief.fine} />
          </Group>
        )}
      </After>
    </>
  );
}
