'use client';
import AddRounded from '@mui/icons-material/AddRounded';
import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined';
import FileOpenOutlined from '@mui/icons-material/FileOpenOutlined';
import UndoRounded from '@mui/icons-material/UndoRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import OutlinedInput from '@mui/material/OutlinedInput';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { differs, radiusOf, type Cutter } from '@/core/cutters/cutter';
import { groupsOf } from '@/core/cutters/groups';
import { freeLabel, hasLabel, newCutter } from '@/core/cutters/library';
import { cutterShapes, shapeOf } from '@/core/cutters/registry';
import { compareCutters, cuttersToCsv, cuttersToJson, readCutters, type Comparison } from '@/core/exchange/cutterSheet';
import { freshId } from '@/store/jobs';
import { freeName, takeFromLibrary } from '@/ui/actions/edits';
import { askForFiles, download } from '@/ui/actions/files';
import { ChoiceField } from '@/ui/common/fields';
import { useOpenJobLater } from '@/ui/following';
import { CutterEditor } from './CutterEditor';
import { CutterList } from './CutterList';
import { NewGroup } from './NewGroup';
import { ImportPreview } from './ImportPreview';
import { useLibrary } from './useLibrary';

const sorts: Record<string, { label: string; of: (c: Cutter) => number | string }> = {
  own: { label: 'My order', of: () => 0 },
  name: { label: 'Name', of: (c) => c.name.toLowerCase() },
  diameter: { label: 'Diameter', of: (c) => radiusOf(c) },
  angle: { label: 'Angle', of: (c) => c.values.includedAngle ?? 2 * (c.values.halfAngle ?? 0) },
  edges: { label: 'Cutting length', of: (c) => c.fluteLength },
  shank: { label: 'Shank', of: (c) => c.shankDiameter },
  slot: { label: 'Slot', of: (c) => c.slot || 9999 },
  supplier: { label: 'Supplier', of: (c) => c.supplier.toLowerCase() },
};

/** The tool library: on its own page and in the drawer of a job. */
export function Library({ onClose }: { onClose: ReactNode }) {
  const { cutters, empty, past, save, put, undo } = useLibrary();
  const job = useOpenJobLater((s) => s.job);
  const [id, setId] = useState(cutters[0]?.id);
  const [search, setSearch] = useState('');
  const [shape, setShape] = useState('');
  const [sort, setSort] = useState('own');
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  /** A copy whose name is to be typed first. */
  const [naming, setNaming] = useState('');
  const [incoming, setIncoming] = useState<{ file: string; found: Comparison } | null>(null);
  const cutter = cutters.find((c) => c.id === id) ?? cutters[0];
  const words = search.toLowerCase().split(/\s+/);
  const found = cutters.filter(
    (c) =>
      (!shape || c.shape === shape) &&
      words.every((w) =>
        `${c.name} ${c.group} ${shapeOf(c.shape).name} ${c.supplier} ${c.stockNumber} ${c.notes}`
          .toLowerCase()
          .includes(w),
      ),
  );
  const by = sorts[sort].of;
  const shown = sort === 'own' ? found : [...found].sort((a, b) => (by(a) < by(b) ? -1 : by(a) > by(b) ? 1 : 0));
  const used = job?.cutters.find((c) => c.id === cutter?.id);
  const [shapes, setShapes] = useState<HTMLElement | null>(null);
  const add = (of: string) => {
    const fresh = newCutter(of, job?.unit ?? 'mm', cutters, freshId());
    void save(fresh);
    setSearch('');
    setShape('');
    setId(fresh.id);
  };
  const read = () =>
    askForFiles('.csv,.json,text/csv,application/json', false, ([file]) => {
      void file.text().then((text) => {
        const r = readCutters(text, file.name);
        setIncoming({ file: file.name, found: compareCutters(cutters, r.cutters, r.refused) });
      });
    });
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          px: 2.5,
          py: 1.5,
          borderBottom: '1px solid',
          borderColor: 'divider',
        }}
      >
        <Typography variant="h2" component="h1" sx={{ mr: 1 }}>
          Tool library
        </Typography>
        <OutlinedInput
          size="small"
          placeholder="Search"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          inputProps={{ 'aria-label': 'Search the cutters' }}
          sx={{ flex: 1, maxWidth: 260 }}
        />
        <Box sx={{ flex: 1 }} />
        <Tooltip title={past.length ? `Undo the ${past[past.length - 1].name}` : 'Nothing to undo'}>
          <span>
            <IconButton aria-label="Undo in the library" disabled={!past.length} onClick={() => void undo()}>
              <UndoRounded />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title="Bring cutters in from a file">
          <IconButton aria-label="Import cutters" onClick={read}>
            <FileOpenOutlined />
          </IconButton>
        </Tooltip>
        <Tooltip title="Save the cutters as a file">
          <IconButton aria-label="Export cutters" aria-haspopup="menu" onClick={(e) => setMenu(e.currentTarget)}>
            <FileDownloadOutlined />
          </IconButton>
        </Tooltip>
        <Menu open={!!menu} anchorEl={menu} onClose={() => setMenu(null)} onClick={() => setMenu(null)}>
          <MenuItem onClick={() => download('cutters.csv', cuttersToCsv(shown), 'text/csv')}>As a table (CSV)</MenuItem>
          <MenuItem onClick={() => download('cutters.json', cuttersToJson(shown), 'application/json')}>
            As JSON
          </MenuItem>
        </Menu>
        <Button
          variant="contained"
          startIcon={<AddRounded />}
          aria-haspopup="menu"
          onClick={(e) => (shape ? add(shape) : setShapes(e.currentTarget))}
        >
          New cutter
        </Button>
        <Menu open={!!shapes} anchorEl={shapes} onClose={() => setShapes(null)} onClick={() => setShapes(null)}>
          {cutterShapes.map((s) => (
            <MenuItem key={s.id} onClick={() => add(s.id)}>
              {s.name}
            </MenuItem>
          ))}
        </Menu>
        {onClose}
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box
          sx={{
            width: 290,
            flex: 'none',
            display: 'flex',
            flexDirection: 'column',
            borderRight: '1px solid',
            borderColor: 'divider',
            bgcolor: 'var(--mui-palette-faint)',
          }}
        >
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: '1fr 1fr',
              gap: 1,
              p: 1.25,
              borderBottom: '1px solid',
              borderColor: 'divider',
            }}
          >
            <ChoiceField
              label="Shapes"
              value={shape}
              options={[{ value: '', label: 'All' }, ...cutterShapes.map((s) => ({ value: s.id, label: s.name }))]}
              onChange={setShape}
            />
            <ChoiceField
              label="Sorted by"
              value={sort}
              options={Object.entries(sorts).map(([value, s]) => ({ value, label: s.label }))}
              onChange={setSort}
            />
          </Box>
          <Box role="group" aria-label="Cutters" sx={{ flex: 1, overflowY: 'auto', py: 0.5 }}>
            <CutterList
              cutters={cutters}
              shown={shown}
              ordered={sort === 'own'}
              id={incoming ? undefined : cutter?.id}
              empty={search || shape ? [] : empty}
              onPick={(c) => {
                setIncoming(null);
                setId(c);
              }}
              onMove={(name, list, left) => void put(name, list, left)}
            />
            {sort === 'own' && !search && !shape && (
              <NewGroup
                taken={[...groupsOf(cutters), ...empty]}
                onMake={(name) => void put(`new group ${name}`, cutters, [...empty, name])}
              />
            )}
          </Box>
        </Box>
        <Box sx={{ flex: 1, minWidth: 0, overflowY: 'auto', p: 2.5 }}>
          {incoming ? (
            <ImportPreview
              file={incoming.file}
              found={incoming.found}
              onLeave={() => setIncoming(null)}
              onTake={(list) => {
                const ids = new Set(list.map((c) => c.id));
                void put(`import of ${incoming.file}`, [
                  ...cutters.map((c) => list.find((n) => n.id === c.id) ?? c),
                  ...list.filter((c) => ids.has(c.id) && !cutters.some((q) => q.id === c.id)),
                ]);
                setId(list[0].id);
                setIncoming(null);
              }}
            />
          ) : (
            cutter && (
              <Box key={cutter.id} sx={{ maxWidth: 1040, display: 'grid', gap: 2 }}>
                <CutterEditor
                  cutter={cutter}
                  among={cutters}
                  naming={naming === cutter.id}
                  first={job?.blank.material ?? 'oak'}
                  onChange={(c) => void save(c)}
                />
                <Box
                  sx={{
                    display: 'flex',
                    gap: 1,
                    flexWrap: 'wrap',
                    borderTop: '1px solid',
                    borderColor: 'divider',
                    pt: 2,
                  }}
                >
                  {used && differs(used, cutter) && (
                    <Button variant="contained" onClick={() => takeFromLibrary(cutter)}>
                      Use it so in this job
                    </Button>
                  )}
                  <Button
                    color="inherit"
                    onClick={() => {
                      const id = freshId();
                      const copy = {
                        ...cutter,
                        id,
                        name: hasLabel(cutter)
                          ? freeLabel({ ...cutter, id }, cutters)
                          : freeName(`${cutter.name} copy`, cutters),
                      };
                      const i = cutters.indexOf(cutter) + 1;
                      void put(`copy of ${cutter.name}`, [...cutters.slice(0, i), copy, ...cutters.slice(i)]).then(
                        () => {
                          setId(copy.id);
                          setNaming(copy.id);
                        },
                      );
                    }}
                  >
                    Copy this cutter
                  </Button>
                  <Button
                    color="error"
                    onClick={() =>
                      void put(
                        `loss of ${cutter.name}`,
                        cutters.filter((c) => c !== cutter),
                      )
                    }
                  >
                    Delete it
                  </Button>
                </Box>
                {used && (
                  <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                    This job uses the cutter. It keeps its own copy: a change here reaches the job only when you say so.
                  </Typography>
                )}
              </Box>
            )
          )}
          {!cutter && !incoming && (
            <Typography sx={{ color: 'text.secondary' }}>
              The library is empty. Make a cutter, or bring some in from a file.
            </Typography>
          )}
        </Box>
      </Box>
    </Box>
  );
}
