'use client';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import Box from '@mui/material/Box';
import type { SxProps } from '@mui/material/styles';
import type { ReactNode } from 'react';

/** A list whose rows are dragged into another order, by pointer or keyboard. `move` is told which row was put in the place of which. */
export function SortableList({
  label,
  ids,
  move,
  sx,
  children,
}: {
  label: string;
  ids: string[];
  move: (id: string, over: string) => void;
  sx?: SxProps;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(String(active.id), String(over.id));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <Box
          component="ol"
          aria-label={label}
          sx={[{ listStyle: 'none', m: 0, p: 0, px: 1.5, display: 'grid' }, sx as object]}
        >
          {children}
        </Box>
      </SortableContext>
    </DndContext>
  );
}
