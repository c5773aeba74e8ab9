'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useEffect, useRef, useState } from 'react';
import { action } from '@/ui/actions/registry';
import { planTools } from '@/ui/planTools';
import { useView } from '@/ui/view';
import { useSize } from '../useSize';
import { evenRows } from '../viewport';
import { toolLooks } from './registry';

/** What of the plan's height is not the tools': above and below them, and their own edges; the same of its width, pixels. */
const ABOVE = 42;
const BESIDE = 12;

/**
 * What a press on the plan does: in one column, or in even ones where the plan is low. `onRoom` hears how much room they take, pixels:
 * the blank is fitted beside them.
 */
export function ToolBar({ height, onRoom }: { height: number; onRoom: (width: number) => void }) {
  const tool = useView((v) => v.tool);
  const bar = useRef<HTMLDivElement>(null);
  const { width } = useSize(bar);
  /** How high a tool is: more for a finger. */
  const [each, setEach] = useState(0);
  const rows = each ? evenRows(planTools.length, Math.floor((height - ABOVE) / each)) : planTools.length;
  useEffect(() => {
    if (width) onRoom(width + BESIDE);
  }, [width, onRoom]);
  return (
    <Box
      ref={bar}
      role="toolbar"
      aria-label="Tools of the plan"
      onPointerDown={(e) => e.stopPropagation()}
      sx={{
        position: 'absolute',
        top: 28,
        left: 28,
        display: 'grid',
        gridAutoFlow: 'column',
        gridTemplateRows: `repeat(${rows}, auto)`,
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: 'divider',
        borderRadius: 2,
        p: 0.25,
      }}
    >
      {planTools.map(({ id: t }, k) => {
        const a = action(`tool-${t}`);
        return (
          <Tooltip key={t} title={`${a.name} (${a.shortcut})`} placement="right">
            <IconButton
              ref={k ? undefined : (el) => void (el && setEach(el.offsetHeight))}
              size="small"
              aria-label={a.name}
              aria-pressed={tool === t}
              color={tool === t ? 'primary' : 'default'}
              onClick={a.run}
              sx={{ borderRadius: 1.5, bgcolor: tool === t ? 'var(--mui-palette-wash)' : undefined }}
            >
              {toolLooks[t].icon}
            </IconButton>
          </Tooltip>
        );
      })}
    </Box>
  );
}
