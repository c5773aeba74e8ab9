'use client';
import FitScreenRounded from '@mui/icons-material/FitScreenRounded';
import RouteRounded from '@mui/icons-material/RouteRounded';
import ShowChartRounded from '@mui/icons-material/ShowChartRounded';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Tooltip from '@mui/material/Tooltip';
import dynamic from 'next/dynamic';
import { useRef } from 'react';
import { materials } from '@/core/cutters/materials';
import { formatLength } from '@/core/units/length';
import { After, turns, useStepLater } from '@/ui/later';
import { SectionStrip } from '@/ui/section/SectionStrip';
import { action } from '@/ui/actions/registry';
import { Split } from '@/ui/common/Split';
import { openMenu, setView, type TableView } from '@/ui/view';
import { Guarded } from '@/ui/common/Guarded';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { useBesideShaped } from './useShownRelief';
import { PlanView } from './PlanView';
import { Readout } from './Readout';
import { SolidLabel } from './SolidLabel';
import { useSize } from './useSize';

const SolidView = dynamic(() => import('./SolidView').then((m) => m.SolidView), { ssr: false });

export function Table() {
  useBesideShaped();
  // Of the job only this: around the plan, the solid and the section nothing is drawn anew at a key stroke.
  const blank = useOpenJobLater((s) => s.job!.blank);
  const unit = useOpenJobLater((s) => s.job!.unit);
  // A view that comes with a sheet is laid out by itself: both in one task hold the page up twice as long.
  const table = useStepLater(useViewLater((v) => v.table));
  const paths = useViewLater((v) => v.paths);
  const sectionOpen = useViewLater((v) => v.sectionOpen);
  const area = useRef<HTMLDivElement>(null);
  const size = useSize(area);
  // Whichever way shows the blank larger: side by side, or one above the other.
  const scale = (w: number, h: number) => Math.min((w - 74) / blank.width, (h - 74) / blank.height);
  const stacked = scale(size.width, size.height / 2) > scale(size.width / 2, size.height);
  const pane = {
    position: 'relative',
    flex: 1,
    minWidth: 0,
    minHeight: 0,
    overflow: 'hidden',
    bgcolor: 'background.paper',
  } as const;
  const label = {
    position: 'absolute',
    right: 8,
    bottom: 8,
    px: 1,
    py: 0.3,
    borderRadius: 1.5,
    fontSize: 12,
    color: 'text.secondary',
    bgcolor: 'color-mix(in srgb, var(--mui-palette-background-paper) 82%, transparent)',
    pointerEvents: 'none',
  } as const;
  const plan = (
    <Box sx={pane}>
      <Guarded part="The plan" anew="job">
        <PlanView />
      </Guarded>
      <RoundCorners />
      <Box sx={label}>
        Plan {'\u00b7'}{' '}
        {[blank.width, blank.height, blank.thickness].map((v) => formatLength(v, unit)).join(' \u00d7 ')} {unit}{' '}
        {materials[blank.material].name.toLowerCase()}
      </Box>
    </Box>
  );
  const solid = (
    <Box sx={pane} onContextMenu={(e) => openMenu(e, 'solid')}>
      <Guarded part="The solid" anew="proof">
        <SolidView />
      </Guarded>
      <RoundCorners />
      <Box sx={label}>
        <SolidLabel />
      </Box>
    </Box>
  );
  const views = (
    <Box ref={area} sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex' }}>
      <Split
        id="views"
        names="Sizes of plan and solid"
        orientation={stacked ? 'vertical' : 'horizontal'}
        parts={[
          ...(table !== 'solid' ? [{ id: 'plan', min: 80, node: <After turn={turns.views}>{plan}</After> }] : []),
          ...(table !== 'plan' ? [{ id: 'solid', min: 80, node: <After turn={turns.views}>{solid}</After> }] : []),
        ]}
      />
    </Box>
  );
  return (
    <Box
      component="section"
      aria-label="Table"
      sx={{
        flex: 1,
        minWidth: 0,
        display: 'flex',
        flexDirection: 'column',
        bgcolor: 'background.default',
        p: 1.25,
        gap: 1,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 34 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={table}
          aria-label="View"
          onChange={(_, v: TableView | null) => v && setView({ table: v })}
          sx={{
            bgcolor: 'background.paper',
            '& .MuiToggleButton-root': {
              textTransform: 'none',
              px: 1.5,
              py: 0.5,
              fontSize: 13,
              borderColor: 'var(--mui-palette-divider)',
            },
          }}
        >
          <ToggleButton value="plan">Plan</ToggleButton>
          <ToggleButton value="solid">Solid</ToggleButton>
          <ToggleButton value="both">Both</ToggleButton>
        </ToggleButtonGroup>
        <Tooltip title={paths ? 'Hide the paths (P)' : 'Show the paths (P)'}>
          <IconButton
            aria-label="Paths"
            aria-pressed={paths}
            color={paths ? 'primary' : 'default'}
            onClick={action('paths').run}
          >
            <RouteRounded />
          </IconButton>
        </Tooltip>
        <Tooltip title="Fit the blank (0)">
          <IconButton aria-label="Fit the blank into the view" onClick={action('fit').run}>
            <FitScreenRounded />
          </IconButton>
        </Tooltip>
        <Tooltip title={sectionOpen ? 'Fold the section (S)' : 'Show the section (S)'}>
          <IconButton
            aria-label="Section"
            aria-pressed={sectionOpen}
            color={sectionOpen ? 'primary' : 'default'}
            onClick={action('section').run}
          >
            <ShowChartRounded />
          </IconButton>
        </Tooltip>
        <Box sx={{ flex: 1 }} />
        <Readout />
      </Box>
      <Split
        id="section"
        names="Height of the section"
        orientation="vertical"
        parts={[
          { id: 'views', min: 120, node: views },
          ...(sectionOpen
            ? [
                {
                  id: 'section',
                  size: 148,
                  min: 96,
                  keeps: true,
                  node: (
                    <After turn={turns.section}>
                      <Guarded part="The section" anew="job">
                        <SectionStrip />
                      </Guarded>
                    </After>
                  ),
                },
              ]
            : []),
        ]}
      />
    </Box>
  );
}

const RADIUS = 10;

/** The rounded frame of a pane, laid over its corners: cutting a canvas itself to a rounded shape is paid for with every frame. */
function RoundCorners() {
  const corner = (x: 'left' | 'right', y: 'top' | 'bottom') => ({
    [x]: 0,
    [y]: 0,
    width: RADIUS,
    height: RADIUS,
    background: `radial-gradient(circle at ${x === 'left' ? '100%' : '0'} ${y === 'top' ? '100%' : '0'}, transparent ${RADIUS - 1.5}px, var(--mui-palette-divider) ${RADIUS - 1}px, var(--mui-palette-divider) ${RADIUS - 0.25}px, var(--mui-palette-background-default) ${RADIUS + 0.25}px)`,
  });
  const edge = { position: 'absolute', pointerEvents: 'none' } as const;
  const line = { ...edge, bgcolor: 'divider' } as const;
  return (
    <>
      <Box sx={{ ...line, left: RADIUS, right: RADIUS, top: 0, height: '1px' }} />
      <Box sx={{ ...line, left: RADIUS, right: RADIUS, bottom: 0, height: '1px' }} />
      <Box sx={{ ...line, top: RADIUS, bottom: RADIUS, left: 0, width: '1px' }} />
      <Box sx={{ ...line, top: RADIUS, bottom: RADIUS, right: 0, width: '1px' }} />
      {(['left', 'right'] as const).flatMap((x) =>
        (['top', 'bottom'] as const).map((y) => <Box key={x + y} sx={{ ...edge, ...corner(x, y) }} />),
      )}
    </>
  );
}
