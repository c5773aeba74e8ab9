'use client';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import ExpandMoreRounded from '@mui/icons-material/ExpandMoreRounded';
import DragIndicatorRounded from '@mui/icons-material/DragIndicatorRounded';
import MoreVertRounded from '@mui/icons-material/MoreVertRounded';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import OutlinedInput from '@mui/material/OutlinedInput';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { Cutter } from '@/core/cutters/cutter';
import { groupsOf, groupInto, moveGroup, placeCutter, renamed, within } from '@/core/cutters/groups';
import { cuttersToCsv, cuttersToJson } from '@/core/exchange/cutterSheet';
import { slug } from '@/core/pipeline/programs';
import { download } from '@/ui/actions/files';
import { tell } from '@/ui/actions/tell';
import { useLibrary } from './useLibrary';

interface Props {
  /** All cutters in the library's order; `shown` are those that the search and the filter leave, as they are sorted. */
  cutters: readonly Cutter[];
  shown: readonly Cutter[];
  /** Whether the list stands in the library's own order: only then it is parted into groups and may be dragged. */
  ordered: boolean;
  id: string | undefined;
  /** Groups without cutters, shown where nothing is searched for. */
  empty: readonly string[];
  onPick: (id: string) => void;
  onMove: (name: string, cutters: Cutter[], empty?: string[]) => void;
}

/** Cutters by group. Groups may lie in groups: "Engraving / Cones". */
export function CutterList({ cutters, shown, ordered, id, empty, onPick, onMove }: Props) {
  const [closed, setClosed] = useState<string[]>([]);
  const [renaming, setRenaming] = useState<{ from: string; text: string } | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const [dragging, setDragging] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  /** Arrows go from cutter to cutter, and Home and End to the first and the last, unless one is being carried by them. */
  const walk = (e: KeyboardEvent) => {
    const rows = [...list.current!.querySelectorAll<HTMLElement>('[data-cutter]')];
    const at = rows.indexOf(e.target as HTMLElement);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[e.key];
    if (dragging || at < 0 || to === undefined || !rows[to]) return;
    e.preventDefault();
    rows[to].focus();
    onPick(rows[to].dataset.cutter!);
  };
  const entry = shown.some((c) => c.id === id) ? id : shown[0]?.id;
  if (!shown.length && !empty.length)
    return <Typography sx={{ p: 2, color: 'text.secondary' }}>No cutter is called that.</Typography>;
  const row = (c: Cutter) => (
    <Row key={c.id} cutter={c} picked={c.id === id} entry={c.id === entry} draggable={ordered} onPick={onPick} />
  );
  if (!ordered)
    return (
      <Box ref={list} onKeyDown={walk} sx={{ py: 1 }}>
        {shown.map(row)}
      </Box>
    );
  const groups = [...groupsOf(shown), ...empty];
  const drop = (e: DragEndEvent) => {
    const [from, over] = [String(e.active.id), e.over && String(e.over.id)];
    if (!over || from === over) return;
    const group = (id: string) =>
      id.startsWith(GROUP) ? id.slice(GROUP.length) : cutters.find((c) => c.id === id)!.group;
    if (from.startsWith(GROUP)) onMove('move of a group', moveGroup(cutters, group(from), group(over)));
    else
      onMove(
        'move of a cutter',
        placeCutter(cutters, from, over.startsWith(GROUP) ? { group: group(over) } : { over }),
      );
  };
  const rename = () => {
    const to = renaming?.text.trim();
    if (renaming && to && to !== renaming.from)
      onMove(
        'name of a group',
        groupInto(cutters, renaming.from, to),
        empty.map((g) => renamed(g, renaming.from, to)),
      );
    setRenaming(null);
  };
  const inGroup = (g: string) => cutters.filter((c) => within(c.group, g));
  const remove = (g: string) => {
    const gone = inGroup(g);
    onMove(
      `loss of the group ${g}`,
      cutters.filter((c) => !gone.includes(c)),
      empty.filter((q) => !within(q, g)),
    );
    if (gone.length)
      tell('info', `"${g}" and ${gone.length === 1 ? 'its cutter are' : `its ${gone.length} cutters are`} deleted.`, {
        words: 'Undo',
        run: () => void useLibrary.getState().undo(),
      });
  };
  const save = (g: string, how: 'csv' | 'json') => {
    const name = `cutters-${slug(g)}.${how}`;
    if (how === 'csv') download(name, cuttersToCsv(inGroup(g)), 'text/csv');
    else download(name, cuttersToJson(inGroup(g)), 'application/json');
  };
  return (
    <Box ref={list} onKeyDown={walk}>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragStart={() => setDragging(true)}
        onDragCancel={() => setDragging(false)}
        onDragEnd={(e) => {
          setDragging(false);
          drop(e);
        }}
      >
        <SortableContext
          items={groups.flatMap((g) => [
            GROUP + g,
            ...shown.filter((c) => c.group === g && !closed.includes(g)).map((c) => c.id),
          ])}
          strategy={verticalListSortingStrategy}
        >
          {groups.map((g) => {
            const path = g.split('/').map((p) => p.trim());
            return (
              <Box key={g} sx={{ pb: 0.5 }}>
                <GroupHead
                  group={g}
                  depth={path.length - 1}
                  closed={closed.includes(g)}
                  toggle={() => setClosed(closed.includes(g) ? closed.filter((q) => q !== g) : [...closed, g])}
                  groups={groups}
                  onRename={() => setRenaming({ from: g, text: g })}
                  onInto={(to) =>
                    onMove(
                      'move of a group',
                      groupInto(cutters, g, to),
                      empty.map((q) => renamed(q, g, to)),
                    )
                  }
                  onDelete={() => remove(g)}
                  onExport={(how) => save(g, how)}
                >
                  {renaming?.from === g ? (
                    <OutlinedInput
                      size="small"
                      autoFocus
                      value={renaming.text}
                      inputProps={{ 'aria-label': 'Name of the group' }}
                      onChange={(e) => setRenaming({ from: g, text: e.target.value })}
                      onBlur={rename}
                      onKeyDown={(e) => (e.key === 'Enter' ? rename() : e.key === 'Escape' && setRenaming(null))}
                      sx={{ flex: 1, height: 28, fontSize: 12 }}
                    />
                  ) : null}
                </GroupHead>
                {!closed.includes(g) && shown.filter((c) => c.group === g).map(row)}
              </Box>
            );
          })}
        </SortableContext>
      </DndContext>
    </Box>
  );
}

const GROUP = 'group ';

interface HeadProps {
  group: string;
  depth: number;
  closed: boolean;
  toggle: () => void;
  groups: readonly string[];
  onRename: () => void;
  onInto: (name: string) => void;
  onDelete: () => void;
  onExport: (how: 'csv' | 'json') => void;
  /** Stands in place of the name while that is being changed. */
  children: ReactNode;
}

/** The head of a group: opened and closed, dragged among the others, renamed, put into another one. */
function GroupHead({
  group,
  depth,
  closed,
  toggle,
  groups,
  onRename,
  onInto,
  onDelete,
  onExport,
  children,
}: HeadProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: GROUP + group,
  });
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const own = group.split('/').pop()!.trim();
  const others = groups.filter((g) => g !== group && !g.startsWith(`${group} /`) && `${g} / ${own}` !== group);
  const close = (run?: () => void) => () => {
    setMenu(null);
    run?.();
  };
  return (
    <Box
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        position: 'relative',
        zIndex: isDragging ? 2 : undefined,
        bgcolor: isDragging ? 'background.paper' : undefined,
        display: 'flex',
        alignItems: 'center',
        pl: 0.5 + 1.5 * depth,
        pr: 0.5,
      }}
    >
      <IconButton
        size="small"
        aria-label={`${closed ? 'Open' : 'Close'} ${group}`}
        aria-expanded={!closed}
        onClick={toggle}
      >
        <ExpandMoreRounded fontSize="inherit" sx={{ transform: closed ? 'rotate(-90deg)' : undefined }} />
      </IconButton>
      {children ?? (
        <>
          <Typography variant="caption" sx={{ flex: 1, color: 'text.secondary', fontWeight: 600 }}>
            {own}
          </Typography>
          <IconButton
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            size="small"
            aria-label={`Drag the group ${group}`}
            sx={{ cursor: 'grab', touchAction: 'none' }}
          >
            <DragIndicatorRounded sx={{ fontSize: 15 }} />
          </IconButton>
          <IconButton
            size="small"
            aria-label={`More for the group ${group}`}
            aria-haspopup="menu"
            onClick={(e) => setMenu(e.currentTarget)}
          >
            <MoreVertRounded sx={{ fontSize: 15 }} />
          </IconButton>
        </>
      )}
      <Menu open={!!menu} anchorEl={menu} onClose={close()}>
        <MenuItem onClick={close(onRename)}>Rename</MenuItem>
        {depth > 0 && (
          <MenuItem onClick={close(() => onInto(own))}>
            Take out of {group.split('/').slice(0, -1).join('/').trim()}
          </MenuItem>
        )}
        {others.map((g) => (
          <MenuItem key={g} onClick={close(() => onInto(`${g} / ${own}`))}>
            Put into {g}
          </MenuItem>
        ))}
        <MenuItem onClick={close(() => onExport('csv'))}>Export as a table (CSV)</MenuItem>
        <MenuItem onClick={close(() => onExport('json'))}>Export as JSON</MenuItem>
        <MenuItem onClick={close(onDelete)} sx={{ color: 'error.main' }}>
          Delete the group
        </MenuItem>
      </Menu>
    </Box>
  );
}

function Row({
  cutter,
  picked,
  entry,
  draggable,
  onPick,
}: {
  cutter: Cutter;
  picked: boolean;
  /** Whether Tab comes to this row of the list. */ entry: boolean;
  draggable: boolean;
  onPick: (id: string) => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: cutter.id,
    disabled: !draggable,
  });
  const row = useRef<HTMLElement | null>(null);
  // What is new, copied or brought in comes into sight.
  useEffect(() => {
    if (picked) row.current?.scrollIntoView({ block: 'nearest' });
  }, [picked]);
  return (
    <Box
      ref={(e: HTMLElement | null) => {
        setNodeRef(e);
        row.current = e;
      }}
      {...attributes}
      {...listeners}
      role="button"
      data-cutter={cutter.id}
      tabIndex={entry ? 0 : -1}
      aria-pressed={picked}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      onClick={() => onPick(cutter.id)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') onPick(cutter.id);
        else listeners?.onKeyDown?.(e);
      }}
      sx={{
        position: 'relative',
        zIndex: isDragging ? 2 : undefined,
        display: 'flex',
        gap: 1,
        px: 2,
        py: 0.6,
        fontSize: 13,
        cursor: 'pointer',
        bgcolor: picked ? 'var(--mui-palette-wash)' : isDragging ? 'background.paper' : undefined,
        fontWeight: picked ? 600 : 450,
        '&:hover': { bgcolor: 'var(--mui-palette-wash)' },
        '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: -2 },
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>{cutter.name}</Box>
      {cutter.slot > 0 && <Box sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400 }}>{cutter.slot}</Box>}
    </Box>
  );
}
