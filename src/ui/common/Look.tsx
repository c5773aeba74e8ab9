'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import type { MaterialId } from '@/core/cutters/materials';
import type { SmallPicture } from '@/core/relief/small';
import { paintLook } from '@/ui/table/shaded';

/** A small picture of a relief in the colour of a blank, in the middle of a square; nothing as long as there is none. */
export function Look({ look, size, material }: { look: SmallPicture | null; size: number; material: MaterialId }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (look?.cols && canvas.current) paintLook(canvas.current, look, material);
  }, [look, material]);
  return (
    <Box sx={{ width: size, height: size, display: 'grid', placeItems: 'center' }}>
      {!!look?.cols && (
        <Box
          component="canvas"
          ref={canvas}
          aria-hidden
          sx={{
            width: (size * look.cols) / Math.max(look.cols, look.rows),
            height: (size * look.rows) / Math.max(look.cols, look.rows),
          }}
        />
      )}
    </Box>
  );
}
