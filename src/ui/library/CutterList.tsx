'use client';
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import ExpandMoreRounded from '@mui/icons-material/ExpandMoreRounded';
import EditOutlined from '@mui/icons-material/EditOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import OutlinedInput from '@mui/material/OutlinedInput';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Cutter } from '@/core/cutters/cutter';

interface Props {
  /** All cutters in the library's order; `shown` are those that the search and the filter leave, as they are sorted. */
  cutters: readonly Cutter[];
  shown: readonly Cutter[];
  /** Whether the list stands in the library's own order: only then it is parted into groups and may be dragged. */
  ordered: boolean;
  id: string | undefined;
  onPick: (id: string) => void;
  onMove: (cutters: Cutter[]) => void;
  onRename: (from: string, to: string) => void;
}

/** Cutters by group. Groups may lie in groups: "Engraving / Cones". */
export function CutterList({ cutters, shown, ordered, id, onPick, onMove, onRename }: Props) {
  const [closed, setClosed] = useState<string[]>([]);
  const [renaming, setRenaming] = useState<{ from: string; text: string } | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  if (!shown.length) return <Typography sx={{ p: 2, color: 'text.secondary' }}>No cutter is called that.</Typography>;
  const row = (c: Cutter) => <Row key={c.id} cutter={c} picked={c.id === id} draggable={ordered} onPick={onPick} />;
  if (!ordered) return <Box sx={{ py: 1 }}>{shown.map(row)}</Box>;
  const groups = [...new Set(shown.map((c) => c.group))];
  const drop = (e: DragEndEvent) => {
    const [from, over] = [String(e.active.id), e.over && String(e.over.id)];
    if (!over || from === over) return;
    const moved = cutters.find((c) => c.id === from)!;
    const target = cutters.find((c) => c.id === over);
    if (!target) return;
    const rest = cutters.filter((c) => c.id !== from);
    const down = cutters.indexOf(moved) < cutters.indexOf(target);
    rest.splice(rest.indexOf(target) + (down ? 1 : 0), 0, { ...moved, group: target.group });
    onMove(rest);
  };
  const rename = () => {
    if (renaming && renaming.text.trim() && renaming.text.trim() !== renaming.from) onRename(renaming.from, renaming.text.trim());
    setRenaming(null);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={shown.filter((c) => !closed.includes(c.group)).map((c) => c.id)} strategy={verticalListSortingStrategy}>
        {groups.map((g) => {
          const path = g.split('/').map((p) => p.trim());
          return (
            <Box key={g} sx={{ pb: 0.5 }}>
              <Box sx={{ display: 'flex', alignItems: 'center', pl: 0.5 + 1.5 * (path.length - 1), pr: 0.5 }}>
                <IconButton size="small" aria-label={`${closed.includes(g) ? 'Open' : 'Close'} ${g}`} aria-expanded={!closed.includes(g)} onClick={() => setClosed(closed.includes(g) ? closed.filter((q) => q !== g) : [...closed, g])}>
                  <ExpandMoreRounded fontSize="inherit" sx={{ transform: closed.includes(g) ? 'rotate(-90deg)' : undefined }} />
                </IconButton>
                {renaming?.from === g ? (
                  <OutlinedInput size="small" autoFocus value={renaming.text} inputProps={{ 'aria-label': 'Name of the group' }} onChange={(e) => setRenaming({ from: g, text: e.target.value })} onBlur={rename} onKeyDown={(e) => (e.key === 'Enter' ? rename() : e.key === 'Escape' && setRenaming(null))} sx={{ flex: 1, height: 28, fontSize: 12 }} />
                ) : (
                  <>
                    <Typography variant="caption" sx={{ flex: 1, color: 'text.secondary', fontWeight: 600 }}>
                      {path[path.length - 1]}
                    </Typography>
                    <IconButton size="small" aria-label={`Rename the group ${g}`} onClick={() => setRenaming({ from: g, text: g })} sx={{ opacity: 0.6 }}>
                      <EditOutlined sx={{ fontSize: 14 }} />
                    </IconButton>
                  </>
                )}
              </Box>
              {!closed.includes(g) && shown.filter((c) => c.group === g).map(row)}
            </Box>
          );
        })}
      </SortableContext>
    </DndContext>
  );
}

function Row({ cutter, picked, draggable, onPick }: { cutter: Cutter; picked: boolean; draggable: boolean; onPick: (id: string) => void }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: cutter.id, disabled: !draggable });
  return (
    <Box
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      role="button"
      tabIndex={0}
      aria-pressed={picked}
      aria-label={cutter.name}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      onClick={() => onPick(cutter.id)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') onPick(cutter.id);
        else listeners?.onKeyDown?.(e);
      }}
      sx={{ position: 'relative', zIndex: isDragging ? 2 : undefined, display: 'flex', gap: 1, px: 2, py: 0.6, fontSize: 13, cursor: 'pointer', bgcolor: picked ? 'var(--mui-palette-wash)' : isDragging ? 'background.paper' : undefined, fontWeight: picked ? 600 : 450, '&:hover': { bgcolor: 'var(--mui-palette-wash)' }, '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: -2 } }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>{cutter.name}</Box>
      {cutter.slot > 0 && <Box sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400 }}>{cutter.slot}</Box>}
    </Box>
  );
}
