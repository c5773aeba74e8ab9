'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { rgb } from 'd3-color';
import { useEffect, useRef } from 'react';
import { materials, type MaterialId } from '@/core/cutters/materials';
import { flatField, type HeightField } from '@/core/relief/field';
import { shade } from '@/core/relief/shade';

/** Pixels on the longer side. */
const LARGEST = 900;

/** The proof from straight above, lit: what is shown where the browser draws no solids. */
export function PlainSolid({
  field,
  width,
  height,
  thickness,
  material,
}: {
  readonly field: HeightField | null;
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  readonly material: MaterialId;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const el = canvas.current!;
    const k = LARGEST / Math.max(width, height);
    const [w, h] = [Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k))];
    [el.width, el.height] = [w, h];
    const light = shade(field ?? flatField(width, height, Math.max(width, height) / 60), w, h, thickness);
    const face = rgb(materials[material].face);
    const ctx = el.getContext('2d')!;
    const image = ctx.createImageData(w, h);
    for (let i = 0; i < light.length; i++) {
      image.data[4 * i] = face.r * light[i];
      image.data[4 * i + 1] = face.g * light[i];
      image.data[4 * i + 2] = face.b * light[i];
      image.data[4 * i + 3] = 255;
    }
    ctx.putImageData(image, 0, 0);
  }, [field, width, height, thickness, material]);
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
