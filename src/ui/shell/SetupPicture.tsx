'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { materials } from '@/core/cutters/materials';
import { oneSetup } from '@/core/job/oneSetup';
import { shade } from '@/core/relief/shade';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

/** Pixels, drawn twice as fine. */
const WIDTH = 42;
const HEIGHT = 28;
const NO_BLANK = { width: WIDTH, height: HEIGHT, thickness: 1, material: 'oak' } as const;

const rgb = (hex: string): [number, number, number] =>
  [1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16)) as [number, number, number];

/** What a set-up leaves, seen from above, as small as a stamp: its proof, or the bare blank before there is one. */
export function SetupPicture({ id }: { readonly id: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const blank = useOpenJobLater((s) => s.whole && oneSetup(s.whole, id).blank);
  const field = useWorkLater((w) => w.setups[id]?.proof?.field ?? null);
  const { width, height, thickness, material } = blank ?? NO_BLANK;
  const k = Math.min((2 * WIDTH) / width, (2 * HEIGHT) / height);
  const [w, h] = [Math.max(2, Math.round(width * k)), Math.max(2, Math.round(height * k))];
  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g) return;
    const picture = g.createImageData(w, h);
    const lit = field ? shade(field, w, h, Math.min(thickness, 6)) : null;
    const [r, gr, b] = rgb(materials[material].face);
    for (let i = 0; i < w * h; i++) {
      const f = lit ? lit[i] : 1;
      picture.data.set([r * f, gr * f, b * f, 255], 4 * i);
    }
    g.putImageData(picture, 0, 0);
  }, [field, w, h, thickness, material]);
  return (
    <Box
      aria-hidden
      sx={{ width: WIDTH, height: HEIGHT, flex: 'none', display: 'grid', placeItems: 'center', m: '0 !important' }}
    >
      <canvas ref={canvas} width={w} height={h} style={{ width: w / 2, height: h / 2, borderRadius: 2 }} />
    </Box>
  );
}
