'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { atProof } from '@/compute/engineHandle';
import { castIds, castMaterials, type CastId } from '@/core/cutters/castMaterials';
import type { CastingValues } from '@/core/job/job';
import type { Cast } from '@/core/pipeline/casting';
import { LOWEST } from '@/core/proof/casting';
import { lengthText, massText, volumeText } from '@/core/units/length';
import { castAnew, changeCasting, saveCasting } from '@/ui/actions/casting';
import { Group } from '@/ui/common/SheetParts';
import { ChoiceField, LengthField, NumberField } from '@/ui/common/fields';
import { setView } from '@/ui/view';
import { useOpenJobLater } from '@/ui/following';
import { usePieces } from './pieces';
import { Facts, Line, NoAnswer, PieceChoice, Troubles } from './said';
import { useAsked } from './useAsked';

const MATERIALS = castIds.map((id) => ({ value: id, label: castMaterials[id].name }));

/** What comes out of the set-up that is shown when it is a mould. */
export function CastingGroup() {
  const values = useOpenJobLater((s) => s.job!.casting);
  return values ? (
    <Casting values={values} />
  ) : (
    <Group title="Casting">
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Is it a mould? See what comes out of it, how heavy it is, and whether its walls let it go.
      </Typography>
      <Button size="small" sx={{ ml: -0.75, mt: 0.5 }} onClick={castAnew}>
        It is a mould
      </Button>
    </Group>
  );
}

function Casting({ values: v }: { readonly values: CastingValues }) {
  const setup = useOpenJobLater((s) => s.job!.at.id);
  const unit = useOpenJobLater((s) => s.job!.unit);
  const { answer: cast, failed } = useAsked<Cast>([setup], JSON.stringify([setup, v]), () => atProof.cast(setup, v));
  const casting = cast?.casting ?? null;
  useEffect(() => {
    usePieces.setState({ cast: casting && { setup, casting, material: v.material } });
    return () => usePieces.setState({ cast: null });
  }, [setup, casting, v.material]);
  const long = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 2 : 4);
  /** Sizes are right to a node of the proof: no more decimals than that. */
  const about = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 1 : 3);
  const size = casting && [...casting.size.map((mm) => about(mm * cast!.cold)), long(casting.thickness * cast!.cold)];
  return (
    <Group
      title="Casting"
      action={
        <Button size="small" color="inherit" onClick={() => changeCasting(null)}>
          No mould
        </Button>
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' }}>
        <Box sx={{ gridColumn: '1 / -1' }}>
          <ChoiceField
            label="Cast in"
            value={v.material}
            options={MATERIALS}
            onChange={(id) =>
              changeCasting({ ...v, material: id as CastId, shrinks: castMaterials[id as CastId].shrinks })
            }
          />
        </Box>
        <LengthField
          label="Filled up to"
          value={v.below}
          unit={unit}
          min={0}
          max={300}
          optional="Its rim"
          hint="Below the top face"
          onChange={(below) => changeCasting({ ...v, below })}
        />
        <NumberField
          label="Shrinks by"
          value={v.shrinks}
          unit="%"
          min={0}
          max={10}
          hint="Along each side"
          onChange={(shrinks) => changeCasting({ ...v, shrinks })}
        />
        <NumberField
          label="Least draft"
          value={v.draft}
          unit={'\u00b0'}
          min={0}
          max={45}
          hint="Leaning from upright"
          onChange={(draft) => changeCasting({ ...v, draft })}
        />
      </Box>
      {!cast ? (
        <NoAnswer failed={failed} until="It is cast once the set-up is proven." />
      ) : (
        <Box sx={{ mt: 1.25 }}>
          {casting && (
            <>
              <Facts>
                <Line name="Volume" value={volumeText(cast.volume, unit)} />
                <Line name="Mass" value={massText(cast.mass, unit)} />
                <Line name={v.shrinks ? 'Cold, it measures' : 'It measures'} value={size!.join(' \u00d7 ')} />
                {cast.unfilled > 0 && <Line name="Drilled holes, not filled" value={String(cast.unfilled)} />}
              </Facts>
              <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.25, alignItems: 'center' }}>
                <PieceChoice names={{ blank: 'Mould', beside: 'Side by side', cast: 'Casting' }} />
                <Button size="small" onClick={() => void saveCasting(casting, cast.cold)}>
                  Save as STL
                </Button>
              </Box>
            </>
          )}
          {cast.troubles.length ? (
            <Troubles
              troubles={cast.troubles}
              show={(at, text) =>
                setView((s) => ({
                  marked: { ...at, text },
                  piece: 'blank',
                  table: s.table === 'solid' ? 'both' : s.table,
                }))
              }
            />
          ) : (
            <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
              {`All walls lean by ${v.draft}\u00b0 or more; of those lower than ${long(LOWEST)} it is not told.`}
            </Typography>
          )}
        </Box>
      )}
    </Group>
  );
}
