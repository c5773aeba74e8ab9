'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { OneSetup } from '@/core/job/job';
import type { OutlinesAsked, ReliefOutline } from '@/core/relief/outlined';
import { heightAt, type HeightField } from '@/core/relief/field';
import { formatLength, parseLengths } from '@/core/units/length';
import { choices } from '@/core/units/fields';
import { findReliefOutlines, flatText, placeReliefOutlines } from '@/ui/actions/reliefOutlines';
import { ChoiceField, NumberField, TextField } from '@/ui/common/fields';
import { useView } from '@/ui/view';

const WAYS = {
  heights: 'Typed depths',
  even: 'Even steps',
  border: 'Its border',
  flats: 'Flat places',
} as const;
type Way = keyof typeof WAYS;

/** Makes outlines of the relief that cuts and masks can use. */
export function ReliefOutlines({ job, field, ready }: { job: OneSetup; field: HeightField; ready: boolean }) {
  const places = useView((v) => v.pins);
  const pins = places.map((p) => heightAt(field, p.x, p.y)).filter(Number.isFinite);
  const [way, setWay] = useState<Way>('heights');
  const [depths, setDepths] = useState('');
  const [count, setCount] = useState(5);
  const [smallest, setSmallest] = useState(1);
  const [wrong, setWrong] = useState('');
  const [listed, setListed] = useState<{ readonly of: HeightField; readonly flats: readonly ReliefOutline[] } | null>(
    null,
  );
  // Those of a relief that has changed since are not of this one.
  const flats = listed?.of === field ? listed.flats : null;
  const asked = (): OutlinesAsked | null => {
    if (way === 'border' || way === 'flats') return { of: way };
    if (way === 'even') return { of: 'even', count };
    const list = parseLengths(depths, job.unit);
    setWrong(list.ok ? '' : list.error);
    return list.ok ? { of: 'heights', heights: list.mm.map((d) => -d) } : null;
  };
  const make = async () => {
    const what = asked();
    const found = what && (await findReliefOutlines(what, smallest));
    if (!found) return;
    if (way === 'flats') setListed({ of: field, flats: found });
    else placeReliefOutlines(found);
  };
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' }}>
        <ChoiceField
          label="Outline"
          value={way}
          options={choices(WAYS)}
          onChange={(v) => {
            setWay(v as Way);
            setListed(null);
            setWrong('');
          }}
        />
        {way === 'heights' && <TextField label={`Depths, ${job.unit}`} value={depths} onChange={setDepths} />}
        {way === 'even' && <NumberField label="How many" value={count} min={1} max={200} whole onChange={setCount} />}
        <NumberField label="Leave out islands under" value={smallest} unit="mm²" min={0} onChange={setSmallest} />
      </Box>
      {way === 'heights' && pins.length > 0 && (
        <Button
          size="small"
          color="inherit"
          onClick={() => setDepths(pins.map((z) => formatLength(-z, job.unit, job.unit === 'mm' ? 3 : 5)).join('; '))}
          sx={{ mt: 0.75, mr: 1 }}
        >
          {pins.length > 1 ? 'At the depths of the pins' : 'At the depth of the pin'}
        </Button>
      )}
      {wrong && (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main', mt: 0.75 }}>
          {wrong}
        </Typography>
      )}
      <Button
        size="small"
        variant="outlined"
        color="inherit"
        disabled={!ready}
        onClick={() => void make()}
        sx={{ mt: 1.25 }}
      >
        {way === 'flats' ? 'Find them' : 'Make outlines'}
      </Button>
      {flats && (
        <Box sx={{ mt: 1.25, display: 'grid', gap: 0.75, justifyItems: 'start' }}>
          {flats.length ? (
            <Box component="ul" aria-label="Flat places" sx={{ m: 0, pl: 2.25, fontSize: 13 }}>
              {flats.slice(0, 20).map((o, k) => (
                <li key={k}>{flatText(o, job)}</li>
              ))}
              {flats.length > 20 && <li>{flats.length - 20} more</li>}
            </Box>
          ) : (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Nothing of this size is level.
            </Typography>
          )}
          {!!flats.length && (
            <Button size="small" variant="outlined" color="inherit" onClick={() => placeReliefOutlines(flats)}>
              Make outlines of them
            </Button>
          )}
        </Box>
      )}
    </>
  );
}
