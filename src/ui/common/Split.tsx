'use client';
import { styled } from '@mui/material/styles';
import { Fragment, type ReactNode } from 'react';
import { local } from '@/store/local';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';

export interface Part {
  readonly id: string;
  readonly node: ReactNode;
  /** Size at first and least size: pixels, or a share such as "50%". */
  readonly size?: number | string;
  readonly min: number | string;
  /** Whether it keeps its pixels when the window changes. */
  readonly keeps?: boolean;
}

/** A line that is dragged, or moved by arrows when it has the focus; wide enough to be taken by a finger. */
const Line = styled(Separator)({
  position: 'relative',
  flex: 'none',
  outline: 'none',
  '&[aria-orientation="vertical"]': { width: 10, cursor: 'col-resize' },
  '&[aria-orientation="horizontal"]': { height: 10, cursor: 'row-resize' },
  '&::after': {
    content: '""',
    position: 'absolute',
    inset: 0,
    margin: 'auto',
    borderRadius: 2,
    backgroundColor: 'var(--mui-palette-line)',
    transition: 'background-color 120ms',
  },
  '&[aria-orientation="vertical"]::after': { width: 3, height: 36 },
  '&[aria-orientation="horizontal"]::after': { height: 3, width: 36 },
  '&:hover::after, &:focus-visible::after, &[data-separator="active"]::after': {
    backgroundColor: 'var(--mui-palette-primary-main)',
  },
});

/** Parts side by side or one above the other, with a line between them that is dragged. What was dragged is remembered on this device. */
export function Split({
  id,
  names,
  orientation,
  parts,
}: {
  id: string;
  names: string;
  orientation: 'horizontal' | 'vertical';
  parts: readonly Part[];
}) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id: `mirvak-${id}-${orientation}`,
    panelIds: parts.map((p) => p.id),
    storage: local(),
    onlySaveAfterUserInteractions: true,
  });
  return (
    <Group
      orientation={orientation}
      defaultLayout={defaultLayout}
      onLayoutChanged={onLayoutChanged}
      resizeTargetMinimumSize={{ fine: 10, coarse: 44 }}
      style={{ flex: 1, minWidth: 0, minHeight: 0 }}
    >
      {parts.map((p, i) => (
        <Fragment key={p.id}>
          {i > 0 && <Line aria-label={names} />}
          <Panel
            id={p.id}
            defaultSize={p.size}
            minSize={p.min}
            groupResizeBehavior={p.keeps ? 'preserve-pixel-size' : 'preserve-relative-size'}
            style={{ display: 'flex', overflow: 'hidden', minWidth: 0, minHeight: 0 }}
          >
            {p.node}
          </Panel>
        </Fragment>
      ))}
    </Group>
  );
}
