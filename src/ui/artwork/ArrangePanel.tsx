'use client';
import AlignHorizontalCenterRounded from '@mui/icons-material/AlignHorizontalCenterRounded';
import AlignHorizontalLeftRounded from '@mui/icons-material/AlignHorizontalLeftRounded';
import AlignHorizontalRightRounded from '@mui/icons-material/AlignHorizontalRightRounded';
import AlignVerticalBottomRounded from '@mui/icons-material/AlignVerticalBottomRounded';
import AlignVerticalCenterRounded from '@mui/icons-material/AlignVerticalCenterRounded';
import AlignVerticalTopRounded from '@mui/icons-material/AlignVerticalTopRounded';
import FlipRounded from '@mui/icons-material/FlipRounded';
import ViewColumnOutlined from '@mui/icons-material/ViewColumnOutlined';
import RotateLeftRounded from '@mui/icons-material/RotateLeftRounded';
import RotateRightRounded from '@mui/icons-material/RotateRightRounded';
import ViewStreamOutlined from '@mui/icons-material/ViewStreamOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useState, type ReactNode } from 'react';
import type { Alignment } from '@/core/artwork/arrange';
import type { OneSetup } from '@/core/job/job';
import { alignPicked, copyInRing, copyInRows, distributePicked } from '@/ui/actions/artwork';
import { copyAlongPicked, pickedSize, shearPicked, sizePicked, turnPickedAbout } from '@/ui/actions/transform';
import { action } from '@/ui/actions/registry';
import { ChoiceField, FlagField, LengthField, NumberField } from '@/ui/common/fields';

const aligners: [Alignment, string, ReactNode][] = [
  ['left', 'Align left', <AlignHorizontalLeftRounded key="l" fontSize="small" />],
  ['centre', 'Align centres', <AlignHorizontalCenterRounded key="c" fontSize="small" />],
  ['right', 'Align right', <AlignHorizontalRightRounded key="r" fontSize="small" />],
  ['bottom', 'Align bottom', <AlignVerticalBottomRounded key="b" fontSize="small" />],
  ['middle', 'Align middles', <AlignVerticalCenterRounded key="m" fontSize="small" />],
  ['top', 'Align top', <AlignVerticalTopRounded key="t" fontSize="small" />],
];

function Tool({ name, run, children }: { name: string; run: () => void; children: ReactNode }) {
  return (
    <Tooltip title={name}>
      <IconButton size="small" aria-label={name} onClick={run}>
        {children}
      </IconButton>
    </Tooltip>
  );
}

/** Aligning, mirroring, turning, grouping, copies in rows and rings of what is picked. */
export function ArrangePanel({ job, count }: { job: OneSetup; count: number }) {
  const [to, setTo] = useState<'blank' | 'group' | 'last'>('blank');
  const [open, setOpen] = useState<keyof typeof panels | null>(null);
  const Open = open && panels[open];
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <ChoiceField
        label="Align to"
        value={to}
        options={[
          { value: 'blank', label: 'The blank' },
          { value: 'group', label: 'All of what is picked' },
          { value: 'last', label: 'The last that was picked' },
        ]}
        onChange={(v) => setTo(v as typeof to)}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', ml: -0.5 }}>
        {aligners.map(([a, name, icon]) => (
          <Tool key={a} name={name} run={() => alignPicked(a, to)}>
            {icon}
          </Tool>
        ))}
        {count > 2 && (
          <>
            <Tool name="Distribute from left to right" run={() => distributePicked('x')}>
              <ViewColumnOutlined fontSize="small" />
            </Tool>
            <Tool name="Distribute from bottom to top" run={() => distributePicked('y')}>
              <ViewStreamOutlined fontSize="small" />
            </Tool>
          </>
        )}
        <Tool name="Mirror left to right" run={action('mirror-upright').run}>
          <FlipRounded fontSize="small" />
        </Tool>
        <Tool name="Mirror top to bottom" run={action('mirror-level').run}>
          <FlipRounded fontSize="small" sx={{ transform: 'rotate(90deg)' }} />
        </Tool>
        <Tool name="Turn a quarter to the left" run={action('turn-left').run}>
          <RotateLeftRounded fontSize="small" />
        </Tool>
        <Tool name="Turn a quarter to the right" run={action('turn-right').run}>
          <RotateRightRounded fontSize="small" />
        </Tool>
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
        {count > 1 && <Quiet onClick={action('group').run}>Group</Quiet>}
        <Quiet onClick={action('ungroup').run}>Ungroup</Quiet>
        {!job.at.only && <Quiet onClick={action('link').run}>Link into another set-up</Quiet>}
        {(Object.keys(panels) as (keyof typeof panels)[])
          .filter((p) => p !== 'Copies along a line' || count > 1)
          .map((p) => (
            <Quiet key={p} onClick={() => setOpen(open === p ? null : p)}>
              {p}
            </Quiet>
          ))}
      </Box>
      {Open && <Open job={job} />}
    </Box>
  );
}

export function Quiet({ onClick, children }: { onClick: () => void; children: ReactNode }) {
  return (
    <Button
      size="small"
      variant="outlined"
      color="inherit"
      onClick={onClick}
      sx={{ borderColor: 'var(--mui-palette-line)', fontSize: 12.5, px: 1.1 }}
    >
      {children}
    </Button>
  );
}

const grid = { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1 } as const;

function Rows({ job }: { job: OneSetup }) {
  const [v, set] = useState({ cols: 3, rows: 1, x: 5, y: 5 });
  return (
    <Box sx={grid}>
      <NumberField label="Columns" value={v.cols} whole min={1} max={200} onChange={(cols) => set({ ...v, cols })} />
      <NumberField label="Rows" value={v.rows} whole min={1} max={200} onChange={(rows) => set({ ...v, rows })} />
      <LengthField label="Gap across" value={v.x} unit={job.unit} onChange={(x) => x !== null && set({ ...v, x })} />
      <LengthField label="Gap up" value={v.y} unit={job.unit} onChange={(y) => y !== null && set({ ...v, y })} />
      <Button
        variant="contained"
        size="small"
        onClick={() => copyInRows(v.cols, v.rows, v.x, v.y)}
        sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
      >
        Make {v.cols * v.rows - 1} copies
      </Button>
    </Box>
  );
}

function Ring({ job }: { job: OneSetup }) {
  const [v, set] = useState({ count: 8, x: job.blank.width / 2, y: job.blank.height / 2, turn: true });
  return (
    <Box sx={grid}>
      <NumberField
        label="How many in all"
        value={v.count}
        whole
        min={2}
        max={720}
        onChange={(count) => set({ ...v, count })}
      />
      <FlagField label="Turn them" value={v.turn} onChange={(turn) => set({ ...v, turn })} />
      <LengthField label="Round X" value={v.x} unit={job.unit} onChange={(x) => x !== null && set({ ...v, x })} />
      <LengthField label="Round Y" value={v.y} unit={job.unit} onChange={(y) => y !== null && set({ ...v, y })} />
      <Button
        variant="contained"
        size="small"
        onClick={() => copyInRing(v.count, v.x, v.y, v.turn)}
        sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
      >
        Make {v.count - 1} copies
      </Button>
    </Box>
  );
}

function Size({ job }: { job: OneSetup }) {
  const [linked, setLinked] = useState(true);
  const now = pickedSize();
  if (!now) return null;
  const set = (width: number, height: number) => sizePicked(Math.max(1e-3, width), Math.max(1e-3, height));
  return (
    <Box sx={grid}>
      <LengthField
        label="Width of all"
        value={now.width}
        unit={job.unit}
        min={0.001}
        max={1e5}
        onChange={(w) => w !== null && set(w, linked ? (now.height * w) / now.width : now.height)}
      />
      <LengthField
        label="Height of all"
        value={now.height}
        unit={job.unit}
        min={0.001}
        max={1e5}
        onChange={(h) => h !== null && set(linked ? (now.width * h) / now.height : now.width, h)}
      />
      <FlagField label="Keep the ratio" value={linked} onChange={setLinked} />
    </Box>
  );
}

function TurnAbout({ job }: { job: OneSetup }) {
  const [v, set] = useState(() => ({ by: 45, x: pickedSize()?.x ?? 0, y: pickedSize()?.y ?? 0 }));
  return (
    <Box sx={grid}>
      <NumberField label="By" value={v.by} unit={'\u00b0'} min={-360} max={360} onChange={(by) => set({ ...v, by })} />
      <span />
      <LengthField label="About X" value={v.x} unit={job.unit} onChange={(x) => x !== null && set({ ...v, x })} />
      <LengthField label="About Y" value={v.y} unit={job.unit} onChange={(y) => y !== null && set({ ...v, y })} />
      <Button
        variant="contained"
        size="small"
        onClick={() => turnPickedAbout(v.by, v.x, v.y)}
        sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
      >
        Turn
      </Button>
    </Box>
  );
}

function Shear() {
  const [v, set] = useState({ by: 12, way: 'across' as 'across' | 'up' });
  return (
    <Box sx={grid}>
      <NumberField
        label="Shear angle"
        value={v.by}
        unit={'\u00b0'}
        min={-80}
        max={80}
        onChange={(by) => set({ ...v, by })}
      />
      <ChoiceField
        label="Which way"
        value={v.way}
        options={[
          { value: 'across', label: 'Uprights lean' },
          { value: 'up', label: 'Levels rise' },
        ]}
        onChange={(way) => set({ ...v, way: way as typeof v.way })}
      />
      <Button
        variant="contained"
        size="small"
        onClick={() => shearPicked(v.by, v.way)}
        sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
      >
        Shear
      </Button>
    </Box>
  );
}

function AlongLine() {
  const [v, set] = useState({ count: 8, turn: true });
  return (
    <Box sx={grid}>
      <NumberField
        label="How many"
        value={v.count}
        whole
        min={1}
        max={1000}
        onChange={(count) => set({ ...v, count })}
      />
      <FlagField label="Turn them" value={v.turn} onChange={(turn) => set({ ...v, turn })} />
      <Button
        variant="contained"
        size="small"
        onClick={() => copyAlongPicked(v.count, v.turn)}
        sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
      >
        Copy along the last picked
      </Button>
    </Box>
  );
}

/** What opens below the buttons, by their names. */
const panels = {
  Size,
  'Turn about': TurnAbout,
  Shear,
  'Copies in rows': Rows,
  'Copies in a ring': Ring,
  'Copies along a line': AlongLine,
} satisfies Record<string, (p: { job: OneSetup }) => ReactNode>;
