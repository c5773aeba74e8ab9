'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { colourName, type Picture } from '@/core/artwork/trace/colours';
import { traceDefaults, type TraceOptions } from '@/core/artwork/trace/options';
import { artworkHelper } from '@/compute/artworkHelper';
import { pathData, transformPath } from '@/core/geometry/path';
import type { OneSetup } from '@/core/job/job';
import { formatLength } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { pictureFile } from '@/store/pictures';
import { drawnBox, placeTraced, traceAgain } from '@/ui/actions/tracing';
import { ChoiceField, FlagField, LengthField, NumberField } from '@/ui/common/fields';
import { setView } from '@/ui/view';
import { decodePicture, PictureError } from './pictureFile';
import { useTracing } from './useTracing';

/** The picture to be traced: a new file, or that of an item, with the values it was traced with. */
async function open(
  job: OneSetup,
  of: File | { readonly again: string },
): Promise<{ file: File; picture: Picture; before: TraceOptions | null; width: number | null }> {
  if (of instanceof File) return { file: of, picture: await decodePicture(of), before: null, width: null };
  const item = job.items.find((i) => i.id === of.again);
  const named = job.assets.find((p) => p.id === item?.values.picture);
  const file = named && (await pictureFile(named));
  if (!item || !file)
    throw new PictureError(
      `The file of "${named?.name ?? item?.name ?? 'this picture'}" is not on this device. Bring the picture again, or open the job from the file that it was exported to.`,
    );
  return {
    file,
    picture: await decodePicture(file),
    before: item.values.trace as TraceOptions,
    width: Number(item.values.width),
  };
}

/** Tracing a picture: what comes of it is seen over the picture while the values are set. */
export function TraceDialog({ job, of }: { job: OneSetup; of: File | { readonly again: string } }) {
  const again = of instanceof File ? null : of.again;
  const [opened, setOpened] = useState<{ file: File; picture: Picture; url: string } | null>(null);
  const [wrong, setWrong] = useState('');
  const [options, setOptions] = useState<TraceOptions>(traceDefaults);
  const [proposed, setProposed] = useState<number | null>(null);
  const [fade, setFade] = useState(0.35);
  /** Millimetres of a pixel; until it is typed, what fits the blank. */
  const [scale, setScale] = useState<number | null>(null);
  const picture = opened?.picture ?? null;
  const { layers, done, error: failed } = useTracing(picture, options);
  const error = wrong || failed;
  useEffect(() => {
    let live = true;
    let url = '';
    open(job, of)
      .then(async ({ file, picture, before, width }) => {
        const seen = await artworkHelper().ask((api) => api.lookAt(picture));
        if (!live) return;
        setProposed(seen.colours);
        setOptions(
          before ?? { ...traceDefaults, threshold: Math.round(seen.threshold * 100) / 100, colours: seen.colours },
        );
        if (width) setScale(width / picture.width);
        setOpened({ file, picture, url: (url = URL.createObjectURL(file)) });
      })
      .catch(
        (e: Error) =>
          live &&
          setWrong(saysOf(e, 'The picture could not be looked at. Save it as PNG or JPEG, or make it smaller.')),
      );
    return () => {
      live = false;
      if (url) URL.revokeObjectURL(url);
    };
    // The job is looked at once: what is traced does not change while the dialog stands.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [of]);
  const close = () => setView({ tracing: null });
  const box = layers && drawnBox(layers);
  const [w, h] = box ? [box.x1 - box.x0, box.y1 - box.y0] : [0, 0];
  const mmPerPixel = scale ?? (box ? Math.min((0.8 * job.blank.width) / w, (0.8 * job.blank.height) / h) : 0);
  const nodes = layers?.reduce((n, l) => n + l.paths.reduce((m, p) => m + p.segments.length, 0), 0) ?? 0;
  const outlines = layers?.reduce((n, l) => n + l.paths.length, 0) ?? 0;
  const things = `${options.mode === 'centre' ? 'line' : 'outline'}${outlines === 1 ? '' : 's'}`;
  const nothing = 'Nothing is found with these values. Move the threshold, or allow smaller spots.';
  const busy = done !== null && !error;
  const found = !layers || busy ? 'Tracing…' : outlines ? `${outlines} ${things}, ${nodes} nodes` : nothing;
  const place = () => {
    if (!layers || !opened || !picture) return;
    const traced = { layers, options, pixels: { width: picture.width, height: picture.height } };
    if (again) traceAgain(again, traced);
    else void placeTraced(opened.file, traced, mmPerPixel);
  };
  const set = (v: Partial<TraceOptions>) => setOptions((o) => ({ ...o, ...v }));
  const mm = (pixels: number, digits?: number) =>
    `${formatLength(pixels * mmPerPixel, job.unit, digits ?? (job.unit === 'mm' ? 1 : 2))} ${job.unit}`;
  return (
    <Dialog
      open
      onClose={close}
      maxWidth="lg"
      fullWidth
      slotProps={{ paper: { 'aria-label': 'Trace a picture', sx: { height: '86vh' } } }}
    >
      <Box sx={{ display: 'flex', height: '100%', minHeight: 0 }}>
        <Box
          sx={{
            width: 300,
            flex: 'none',
            p: 2.5,
            overflowY: 'auto',
            borderRight: '1px solid',
            borderColor: 'divider',
            bgcolor: 'var(--mui-palette-faint)',
            display: 'grid',
            gap: 1.5,
            alignContent: 'start',
          }}
        >
          <Typography variant="h2" component="h2">
            {again ? 'Trace again' : 'Trace a picture'}
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
            {opened && `${opened.file.name} · ${opened.picture.width} × ${opened.picture.height} pixels`}
          </Typography>
          <ChoiceField
            label="Trace"
            value={options.mode}
            options={[
              { value: 'threshold', label: 'What is darker than a threshold' },
              { value: 'colours', label: 'Each colour' },
              { value: 'centre', label: 'Centre lines of strokes' },
            ]}
            onChange={(v) => set({ mode: v as TraceOptions['mode'] })}
          />
          {options.mode !== 'colours' ? (
            <>
              <Labelled label={`Threshold ${Math.round(options.threshold * 100)} %`}>
                <Slider
                  size="small"
                  aria-label="Threshold"
                  value={options.threshold}
                  min={0.02}
                  max={0.98}
                  step={0.01}
                  onChange={(_, v) => set({ threshold: v as number })}
                />
              </Labelled>
              <FlagField
                label="Invert: trace what is light"
                value={options.invert}
                onChange={(invert) => set({ invert })}
              />
            </>
          ) : (
            <>
              <NumberField
                label="Colours"
                value={options.colours}
                whole
                min={2}
                max={16}
                hint={proposed ? `${proposed} found in the picture, with its ground` : undefined}
                onChange={(colours) => set({ colours })}
              />
              <FlagField
                label="Leave the ground out"
                value={options.skipGround}
                onChange={(skipGround) => set({ skipGround })}
              />
              <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
                {layers?.map((l) => (
                  <Box
                    key={l.colour}
                    title={colourName(l.colour)}
                    sx={{
                      width: 26,
                      height: 26,
                      borderRadius: '50%',
                      border: '1px solid',
                      borderColor: 'divider',
                      bgcolor: l.colour,
                    }}
                  />
                ))}
              </Box>
            </>
          )}
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.25 }}>
            <NumberField
              label="Smallest spot"
              unit="px²"
              value={options.speckle}
              min={0}
              max={1e6}
              onChange={(speckle) => set({ speckle })}
              hint={mmPerPixel ? `${mm(Math.sqrt(options.speckle))} square` : undefined}
            />
            <NumberField
              label="Corner from"
              unit={'°'}
              value={options.corner}
              min={5}
              max={150}
              onChange={(corner) => set({ corner })}
            />
            <LengthField
              label="Accuracy"
              value={mmPerPixel ? options.accuracy * mmPerPixel : null}
              unit={job.unit}
              min={1e-4}
              max={50}
              onChange={(v) =>
                v !== null && mmPerPixel && set({ accuracy: Math.min(10, Math.max(0.05, v / mmPerPixel)) })
              }
              hint={`${options.accuracy.toFixed(2)} pixels`}
            />
            {!again && (
              <LengthField
                label="Width"
                value={box ? w * mmPerPixel : null}
                unit={job.unit}
                min={0.1}
                max={1e5}
                onChange={(v) => v !== null && w > 0 && setScale(v / w)}
                hint={box ? `of what is drawn; ${mm(h)} high` : undefined}
              />
            )}
          </Box>
          {again && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              The outlines stay where and as large as they are now, and in their cuts.
            </Typography>
          )}
          <Labelled label="Picture behind the outlines">
            <Slider
              size="small"
              aria-label="How much of the picture is seen"
              value={fade}
              min={0}
              max={1}
              step={0.05}
              onChange={(_, v) => setFade(v as number)}
            />
          </Labelled>
          <Typography role="status" variant="body2" sx={{ color: error ? 'error.main' : 'text.secondary' }}>
            {error || found}
          </Typography>
          {/* Its place is kept, so that the buttons below do not move under the hand. */}
          <Box sx={{ height: 4 }}>
            {busy && <LinearProgress variant="determinate" value={100 * done} aria-label="Tracing" />}
          </Box>
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button variant="contained" disabled={!outlines || done !== null || !!error} onClick={place}>
              {again ? 'Take these outlines' : 'Place on the blank'}
            </Button>
            <Button color="inherit" onClick={close}>
              Cancel
            </Button>
          </Box>
        </Box>
        <Box sx={{ flex: 1, minWidth: 0, position: 'relative', p: 3, display: 'grid', placeItems: 'center' }}>
          {picture && (
            <svg
              viewBox={`0 0 ${picture.width} ${picture.height}`}
              style={{ width: '100%', height: '100%', background: '#fff', borderRadius: 6 }}
              role="img"
              aria-label="The picture and what is traced of it"
            >
              <image href={opened!.url} width={picture.width} height={picture.height} opacity={fade} />
              {layers?.map((l) => (
                <path
                  key={l.colour}
                  d={pathData(
                    l.paths.map((p) => transformPath(p, { a: 1, b: 0, c: 0, d: -1, e: 0, f: picture.height })),
                    2,
                  )}
                  fill={options.mode === 'colours' ? l.colour : '#2b7a74'}
                  fillOpacity={options.mode === 'colours' ? 0.75 : options.mode === 'centre' ? 0 : 0.25}
                  fillRule="evenodd"
                  stroke="#14504b"
                  strokeWidth={options.mode === 'centre' ? 2 : 1.4}
                  vectorEffect="non-scaling-stroke"
                />
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
      <Typography variant="caption" sx={{ color: 'text.secondary' }}>
        {label}
      </Typography>
      <Box sx={{ px: 1 }}>{children}</Box>
    </Box>
  );
}
