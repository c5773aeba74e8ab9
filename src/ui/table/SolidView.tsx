'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { useWork } from '@/compute/pipeline';
import { flatField } from '@/core/relief/field';
import { savePicture } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { SolidScene } from './solid/scene';
import { makeSurface } from './solid/surface';
import { useSize } from './useSize';

const VIEWS = [
  ['corner', 'Corner'],
  ['top', 'Top'],
  ['front', 'Front'],
  ['side', 'Side'],
] as const;

export function SolidView() {
  const job = useOpenJob((s) => s.job)!;
  const jobId = useOpenJob((s) => s.id)!;
  const proof = useWork((w) => w.proof);
  const play = useView((v) => v.play);
  const camera = useView((v) => v.camera);
  const holder = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<SolidScene | null>(null);
  const [failed, setFailed] = useState(false);
  const size = useSize(holder);
  const { width, height, thickness, material } = job.blank;
  const empty = !job.cuts.some((c) => c.enabled);

  useEffect(() => {
    try {
      scene.current = new SolidScene(canvas.current!);
    } catch {
      setFailed(true);
      return;
    }
    return () => {
      scene.current?.dispose();
      scene.current = null;
    };
  }, []);
  useEffect(() => scene.current?.resize(size.width, size.height), [size]);
  const seen = useRef('');
  useEffect(() => {
    const s = scene.current;
    if (!s || !size.width) return;
    // A new blank or another shape of the view asks for a fresh look; else the maker's own view stays.
    const key = `${width}/${height}/${camera.n}`;
    if (seen.current !== key) s.look(seen.current ? camera.to : 'corner', width, height, thickness);
    seen.current = key;
  }, [size, width, height, thickness, camera]);
  const field = empty ? null : (play?.field ?? proof?.field ?? null);
  useEffect(() => {
    const s = scene.current;
    if (!s) return;
    s.setBody(makeSurface(field ?? flatField(width, height, Math.max(width, height) / 60), width, height, thickness, material));
  }, [field, width, height, thickness, material]);
  useEffect(() => {
    const c = play ? (job.cutters.find((q) => q.id === play.cutterId) ?? null) : null;
    scene.current?.setCutter(c, play?.x, play?.y, play?.z);
  }, [play, job.cutters]);
  // The card's picture: taken once the proof has been drawn, when nothing has changed for a while.
  useEffect(() => {
    if (!proof || play || empty) return;
    const timer = setTimeout(() => {
      const s = scene.current;
      if (!s) return;
      s.onFrame = () => {
        s.onFrame = null;
        void savePicture(jobId, s.picture(600, 356, '#f1ede3')).catch(() => {});
      };
      s.draw();
    }, 900);
    return () => clearTimeout(timer);
  }, [proof, play, jobId, empty, size]);

  return (
    <Box ref={holder} sx={{ position: 'absolute', inset: 0, background: 'linear-gradient(var(--mui-palette-background-paper), var(--mui-palette-background-default))' }}>
      <canvas ref={canvas} aria-label="The blank in the round" role="img" tabIndex={0} style={{ width: '100%', height: '100%', display: 'block', outline: 'none', touchAction: 'none' }} />
      {failed ? (
        <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', p: 4 }}>
          <Typography sx={{ color: 'text.secondary', textAlign: 'center' }}>This browser cannot draw solids (WebGL is off). Plan and section still show everything.</Typography>
        </Box>
      ) : (
        <Box role="group" aria-label="Standard views" sx={{ position: 'absolute', top: 6, right: 6, display: 'flex' }}>
          {VIEWS.map(([to, name]) => (
            <Button key={to} size="small" color="inherit" onClick={() => setView((v) => ({ camera: { to, n: v.camera.n + 1 } }))} sx={{ minWidth: 0, px: 1, minHeight: 28, fontSize: 12, color: 'text.secondary' }}>
              {name}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}
