import { useColorScheme } from '@mui/material/styles';
import { useEffect, useMemo, useReducer, useRef, useState, type RefObject } from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import { radiusOf } from '@/core/cutters/cutter';
import type { OneSetup } from '@/core/job/job';
import { originOf } from '@/ui/common/useDatum';
import { cutColour } from '@/ui/theme/theme';
import { useShownRelief } from './useShownRelief';
import { useView } from '@/ui/view';
import { useWorkLater } from '@/ui/following';
import { artworkPicture, MovedPicture } from './artworkCache';
import { drawPlan, type DrawnJob, type PlanColours } from './drawPlan';
import { pathPicture } from './pathPicture';
import type { Viewport } from './viewport';

const LIGHT: PlanColours = {
  ground: '#fbfaf6',
  grid: '#dcd6c8',
  ink: '#1e2a2f',
  quiet: '#6b767b',
  paper: '#ffffff',
  accent: '#2b7a74',
  danger: '#c2412d',
  dark: false,
};
const DARK: PlanColours = {
  ground: '#171c1f',
  grid: '#2c353a',
  ink: '#dcd8ce',
  quiet: '#98a3a8',
  paper: '#1d2327',
  accent: '#5fb8af',
  danger: '#ef7d69',
  dark: true,
};

/** The plans whose paths are shown, with their colours; none while no paths are, so that new ones do not draw the table again. */
function usePlans(job: OneSetup) {
  const cutId = useView((v) => v.cutId);
  const paths = useView((v) => v.paths);
  const stage = useView((v) => v.stage);
  const showPaths = paths && (stage === 'cuts' || stage === 'proof' || stage === 'run');
  const shownCuts = useWorkLater((w) => (showPaths ? w.cuts : null));
  return useMemo(
    () =>
      shownCuts
        ? job.cuts.flatMap((c, i) =>
            c.enabled && !c.hidden && shownCuts[c.id]
              ? [{ plan: shownCuts[c.id].plan, colour: cutColour(i), selected: c.id === cutId && stage === 'cuts' }]
              : [],
          )
        : [],
    [shownCuts, job.cuts, cutId, stage],
  );
}

/** The cutter that is being played, as a disc. */
function useMill(job: OneSetup) {
  const play = useView((v) => v.play);
  return useMemo(() => {
    if (!play) return null;
    const c = job.cutters.find((q) => q.id === play.cutterId);
    return { x: play.x, y: play.y, r: c ? radiusOf(c) : 1 };
  }, [play, job.cutters]);
}

/** Draws the plan on the canvas that it gives, whenever something of it changes. `shift`: how far what is picked is drawn aside. */
export function usePlanDrawing(
  size: { readonly width: number; readonly height: number },
  view: Viewport | null,
  job: OneSetup,
  placed: ReadonlyMap<string, PlacedItem>,
  shift: { dx: number; dy: number } | null,
): RefObject<HTMLCanvasElement | null> {
  const { blank, unit, clamps, items, layers, assets } = job;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [cache] = useState(() => ({ rest: artworkPicture(), top: new MovedPicture(), paths: pathPicture() }));
  const [round, again] = useReducer((n: number) => n + 1, 0);
  useEffect(
    () => () => {
      cache.rest.drop();
      cache.top.drop();
      cache.paths.drop();
    },
    [cache],
  );
  const { mode, systemMode } = useColorScheme();
  const colours = (mode === 'system' ? systemMode : mode) === 'dark' ? DARK : LIGHT;
  const picked = useView((v) => v.picked);
  const gauged = useView((v) => v.gauged);
  const framed = useView((v) => v.stage === 'artwork' && v.tool === 'pick');
  const fromCorner = useView((v) => v.fromCorner);
  const origin = useMemo(() => originOf(blank, fromCorner), [blank, fromCorner]);
  // Drawn anew when one of these has changed, and not with each change of a form or a cut.
  const drawn = useMemo<DrawnJob>(
    () => ({ blank, unit, clamps, items, layers, assets }),
    [blank, unit, clamps, items, layers, assets],
  );
  const plans = usePlans(job);
  const mill = useMill(job);
  const ofRelief = useView((v) => v.stage === 'relief');
  const shaped = useShownRelief();
  const relief = ofRelief ? shaped : null;
  const seen = useView((v) => v.seen);
  useEffect(() => {
    const el = canvas.current;
    if (!el || !view || !size.width) return;
    const dpr = window.devicePixelRatio || 1;
    const [w, h] = [Math.round(size.width * dpr), Math.round(size.height * dpr)];
    // Setting a size clears and makes the canvas anew, even when it is the same.
    if (el.width !== w || el.height !== h) [el.width, el.height] = [w, h];
    drawPlan(
      el.getContext('2d', { willReadFrequently: true })!,
      size.width,
      size.height,
      dpr,
      view,
      { job: drawn, placed, plans, picked, framed, gauged, shift, tool: mill, relief, seen, origin },
      colours,
      cache,
      again,
    );
  }, [
    canvas,
    view,
    size,
    drawn,
    placed,
    plans,
    picked,
    framed,
    gauged,
    shift,
    mill,
    relief,
    seen,
    origin,
    colours,
    cache,
    again,
    round,
  ]);
  return canvas;
}
