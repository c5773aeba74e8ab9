'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { action } from '@/ui/actions/registry';
import { planTools } from '@/ui/planTools';
import { useView } from '@/ui/view';
import { toolLooks } from './registry';

/** What a press on the plan does. */
export function ToolBar() {
  const tool = useView((v) => v.tool);
  return (
    <Box
      role="toolbar"
      aria-label="Tools of the plan"
      onPointerDown={(e) => e.stopPropagation()}
      sx={{
        position: 'absolute',
        top: 28,
        left: 28,
        display: 'flex',
        flexDirection: 'column',
        flexWrap: 'wrap',
        maxHeight: 'calc(100% - 36px)',
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: 'divider',
        borderRadius: 2,
        p: 0.25,
      }}
    >
      {planTools.map(({ id: t }) => {
        const a = action(`tool-${t}`);
        return (
          <Tooltip key={t} title={`${a.name} (${a.shortcut})`} placement="right">
            <IconButton
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
