'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import * as Comlink from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { artworkHelper, isCancelled } from '@/compute/pool';
import { bestThreshold, type Picture } from '@/core/artwork/trace/colours';
import { traceDefaults, type TracedLayer, type TraceOptions } from '@/core/artwork/trace/trace';
import { pathData, transformPath } from '@/core/geometry/path';
import type { Job } from '@/core/job/job';
import { freshId } from '@/store/jobs';
import { drawingOf } from '@/ui/actions/artwork';
import { edit, freeName } from '@/ui/actions/edits';
import { ChoiceField, FlagField, LengthField, NumberField } from '@/ui/common/fields';
import { setView } from '@/ui/view';

/** Larger pictures are made smaller before they are traced, pixels on the longer side. */
const LARGEST = 4000;

async function decode(file: File): Promise<Picture> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error(`"${file.name}" is no picture that can be read. Save it as PNG or JPEG.`);
  });
  const scale = Math.min(1, LARGEST / Math.max(bitmap.width, bitmap.height));
  const width = Math.max(1, Math.round(bitmap.width * scale));
  const height = Math.max(1, Math.round(bitmap.height * scale));
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d', { willReadFrequently: true })!;
  ctx.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, rgba: ctx.getImageData(0, 0, width, height).data };
}

/** Tracing a picture: what comes of it is seen over the picture while the values are set. */
export function TraceDialog({ job, file }: { job: Job; file: File }) {
  const [picture, setPicture] = useState<Picture | null>(null);
  const [error, setError] = useState('');
  const [options, setOptions] = useState<TraceOptions>(traceDefaults);
  const [layers, setLayers] = useState<TracedLayer[] | null>(null);
  const [done, setDone] = useState<number | null>(0);
  const [fade, setFade] = useState(0.35);
  const [width, setWidth] = useState<number | null>(null);
  const url = useMemo(() => URL.createObjectURL(file), [file]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  useEffect(() => {
    let live = true;
    decode(file)
      .then((p) => {
        if (!live) return;
        setPicture(p);
        setOptions((o) => ({ ...o, threshold: Math.round(bestThreshold(p) * 100) / 100 }));
        const fit = Math.min((0.8 * job.blank.width) / p.width, (0.8 * job.blank.height) / p.height);
        setWidth(Math.round(p.width * fit * 10) / 10);
      })
      .catch((e: Error) => live && setError(e.message));
    return () => {
      live = false;
    };
    // The blank is looked at once, for a first size.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [file]);
  const asked = useRef(0);
  useEffect(() => {
    if (!picture) return;
    const mine = ++asked.current;
    const t = setTimeout(() => {
      void artworkHelper().then(async (seat) => {
        seat.cancel();
        setDone(0);
        try {
          const got = await seat.api.trace(seat.next(), picture, options, Comlink.proxy((d: number) => mine === asked.current && setDone(d)));
          if (mine === asked.current) {
            setLayers(got);
            setDone(null);
            setError('');
          }
        } catch (e) {
          if (!isCancelled(e) && mine === asked.current) {
            setError((e as Error).message);
            setDone(null);
          }
        }
      });
    }, 120);
    return () => clearTimeout(t);
  }, [picture, options]);
  const close = () => setView({ tracing: null });
  const nodes = layers?.reduce((n, l) => n + l.paths.reduce((m, p) => m + p.segments.length, 0), 0) ?? 0;
  const outlines = layers?.reduce((n, l) => n + l.paths.length, 0) ?? 0;
  const perPixel = picture && width ? width / picture.width : 0;
  const place = () => {
    if (!layers || !picture || !width) return;
    const k = width / picture.width;
    const at = { a: k, b: 0, c: 0, d: k, e: job.blank.width / 2 - width / 2, f: job.blank.height / 2 - (picture.height * k) / 2 };
    const name = file.name.replace(/\.[a-z]+$/i, '');
    const made: string[] = [];
    edit(`Trace ${file.name}`, (j) => {
      const group = layers.filter((l) => l.paths.length).length > 1 ? freshId() : null;
      if (group) j.groups.push({ id: group, name: freeName(name, j.groups), parent: null });
      for (const l of layers) {
        if (!l.paths.length) continue;
        let layer = j.layers[0].id;
        if (group) {
          layer = freshId();
          j.layers.push({ id: layer, name: freeName(`${name} ${l.colour}`, j.layers), colour: l.colour, visible: true, locked: false });
        }
        const item = drawingOf(l.paths.map((p) => transformPath(p, at)), freeName(name, j.items), { layer, group });
        made.push(item.id);
        j.items.push(item);
      }
    });
    setView({ picked: made, tracing: null });
  };
  const set = (v: Partial<TraceOptions>) => setOptions((o) => ({ ...o, ...v }));
  return (
    <Dialog open onClose={close} maxWidth="lg" fullWidth slotProps={{ paper: { 'aria-label': 'Trace a picture', sx: { height: '86vh' } } }}>
      <Box sx={{ display: 'flex', height: '100%', minHeight: 0 }}>
        <Box sx={{ width: 300, flex: 'none', p: 2.5, overflowY: 'auto', borderRight: '1px solid', borderColor: 'divider', bgcolor: 'var(--mui-palette-faint)', display: 'grid', gap: 1.5, alignContent: 'start' }}>
          <Typography variant="h2" component="h2">Trace a picture</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {file.name}{picture ? ` \u00b7 ${picture.width} \u00d7 ${picture.height} pixels` : ''}
          </Typography>
          <ChoiceField label="Trace" value={options.mode} options={[{ value: 'threshold', label: 'What is darker than a threshold' }, { value: 'colours', label: 'Each colour' }, { value: 'centre', label: 'Centre lines of strokes' }]} onChange={(v) => set({ mode: v as TraceOptions['mode'] })} />
          {options.mode !== 'colours' ? (
            <>
              <Labelled label={`Threshold ${Math.round(options.threshold * 100)} %`}>
                <Slider size="small" aria-label="Threshold" value={options.threshold} min={0.02} max={0.98} step={0.01} onChange={(_, v) => set({ threshold: v as number })} />
              </Labelled>
              <FlagField label="Invert: trace what is light" value={options.invert} onChange={(invert) => set({ invert })} />
            </>
          ) : (
            <NumberField label="Colours" value={options.colours} whole min={2} max={16} onChange={(colours) => set({ colours })} />
          )}
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.25 }}>
            <NumberField label="Smallest spot" unit="px²" value={options.speckle} min={0} max={1e6} onChange={(speckle) => set({ speckle })} />
            <NumberField label="Corner from" unit={'\u00b0'} value={options.corner} min={5} max={150} onChange={(corner) => set({ corner })} />
            <LengthField label="Accuracy" value={perPixel ? options.accuracy * perPixel : null} unit={job.unit} min={1e-4} max={50} onChange={(v) => v !== null && perPixel && set({ accuracy: Math.min(10, Math.max(0.05, v / perPixel)) })} hint={`${options.accuracy.toFixed(2)} pixels`} />
            <LengthField label="Width" value={width} unit={job.unit} min={0.1} max={1e5} onChange={(v) => v !== null && setWidth(v)} hint={picture && width ? `${((width * picture.height) / picture.width).toFixed(1)} mm high` : undefined} />
          </Box>
          <Labelled label="Picture behind the outlines">
            <Slider size="small" aria-label="How much of the picture is seen" value={fade} min={0} max={1} step={0.05} onChange={(_, v) => setFade(v as number)} />
          </Labelled>
          <Typography role="status" variant="body2" sx={{ color: error ? 'error.main' : 'text.secondary' }}>
            {error || (layers ? `${outlines} ${options.mode === 'centre' ? 'line' : 'outline'}${outlines === 1 ? '' : 's'}, ${nodes} nodes` : 'Tracing\u2026')}
          </Typography>
          {done !== null && !error && <LinearProgress variant="determinate" value={100 * done} aria-label="Tracing" />}
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button variant="contained" disabled={!layers?.some((l) => l.paths.length) || done !== null} onClick={place}>
              Place on the blank
            </Button>
            <Button color="inherit" onClick={close}>
              Cancel
            </Button>
          </Box>
        </Box>
        <Box sx={{ flex: 1, minWidth: 0, position: 'relative', p: 3, display: 'grid', placeItems: 'center' }}>
          {picture && (
            <svg viewBox={`0 0 ${picture.width} ${picture.height}`} style={{ width: '100%', height: '100%', background: '#fff', borderRadius: 6 }} role="img" aria-label="The picture and what is traced of it">
              <image href={url} width={picture.width} height={picture.height} opacity={fade} />
              {layers?.map((l) => (
                <path key={l.colour} d={pathData(l.paths.map((p) => transformPath(p, { a: 1, b: 0, c: 0, d: -1, e: 0, f: picture.height })), 2)} fill={options.mode === 'colours' ? l.colour : '#2b7a74'} fillOpacity={options.mode === 'colours' ? 0.75 : options.mode === 'centre' ? 0 : 0.25} fillRule="evenodd" stroke="#14504b" strokeWidth={options.mode === 'centre' ? 2 : 1.4} vectorEffect="non-scaling-stroke" />
              ))}
            </svg>
          )}
        </Box>
      </Box>
    </Dialog>
  );
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Box>
      <Typography variant="caption" sx={{ color: 'text.secondary' }}>{label}</Typography>
      <Box sx={{ px: 1 }}>{children}</Box>
    </Box>
  );
}

