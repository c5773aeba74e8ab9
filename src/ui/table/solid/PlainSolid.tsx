'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import type { BodyMaterial } from '@/core/cutters/castMaterials';
import type { PaintId } from '@/core/cutters/paints';
import { flatField, type HeightField } from '@/core/relief/field';
import { paintedPicture, paintShaded } from '../shaded';

/** Pixels on the longer side. */
const LARGEST = 900;

/** The proof from straight above, lit: what is shown where the browser draws no solids. */
export function PlainSolid({
  field,
  width,
  height,
  thickness,
  material,
  paint,
}: {
  readonly field: HeightField | null;
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  readonly material: BodyMaterial;
  readonly paint: PaintId;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const el = canvas.current!;
    const k = LARGEST / Math.max(width, height);
    const [w, h] = [Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k))];
    const shown = field ?? flatField(width, height, Math.max(width, height) / 60);
    const colours = paintedPicture(shown, w, h, material, paint);
    paintShaded(el, shown, w, h, thickness, material, undefined, undefined, colours, 0);
  }, [field, width, height, thickness, material, paint]);
  return (
    <Box
      sx={{
        position: 'absolute',
        inset: 0,
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        justifyContent: 'center',
        gap: 1,
        p: 2,
      }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label="The proof from above"
        style={{ maxWidth: '100%', maxHeight: 'calc(100% - 56px)', objectFit: 'contain' }}
      />
      <Typography variant="caption" sx={{ color: 'text.secondary', textAlign: 'center' }}>
        This browser draws no solids now (WebGL is off, or was lost). This is the same proof from above; the section is
        exact.
      </Typography>
    </Box>
  );
}
