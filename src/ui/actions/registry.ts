import { addSetup, showNextSetup } from './setups';
import { itemKinds } from '@/core/artwork/registry';
import { formKinds } from '@/core/relief/registry';
import { cutKinds } from '@/core/cuts/registry';
import { alignments } from '@/core/artwork/arrange';
import { combinations, type Combination } from '@/core/artwork/shapeWork';
import { useOpenJob } from '@/store/openJob';
import { useLibrary } from '@/ui/library/useLibrary';
import { levelLine, uprightLine } from '@/ui/section/line';
import { planTools } from '@/ui/planTools';
import { setView, stageNames, stages, useView, type Stage } from '@/ui/view';
import { addItem } from './add';
import { linkPickedInto, otherSetups, ownPicked, sourceOf } from './links';
import { groupByCutter, togglePaths, addCut, deletePicked, nudge, pickable } from './edits';
import {
  pickWithin,
  alignPicked,
  centrePicked,
  copyPicked,
  distributePicked,
  groupPicked,
  mirrorPicked,
  pickedItems,
  toDrawings,
  turnPicked,
  ungroupPicked,
  workOnShapes,
} from './artwork';
import { addLayer } from './layers';
import { pieceActions } from './pieces';
import { copyToClipboard, pasteFromClipboard } from './clipboard';
import { chooseFiles, exportArtwork } from './drawingFiles';
import { exportOpenJob } from './files';
import { chooseFont, setAlongPicked } from './lettering';
import { addForm, chooseReliefFile, exportRelief, reliefFormats, type ReliefFormat } from './relief';
import { tracePickedAgain } from './tracing';

/** One thing that a maker can do. Menus, buttons, shortcuts and the command list all come from here. */
export interface Action {
  readonly id: string;
  readonly name: string;
  /** E.g. `Ctrl+Z`; Ctrl stands for Cmd on a Mac. */
  readonly shortcut?: string;
  /** Whether its shortcut counts only while the table has the focus. */
  readonly onTable?: boolean;
  readonly enabled?: () => boolean;
  readonly run: () => void;
}

export const combinationNames: Record<Combination, string> = {
  unite: 'Unite',
  subtract: 'Subtract',
  intersect: 'Intersect',
  exclude: 'Exclude',
};

/** What stands in a field is taken before the field goes away with its sheet: a field that vanishes is not left. */
export const leaveField = (): unknown =>
  (document.activeElement as HTMLElement | null)?.matches?.('input, textarea') &&
  (document.activeElement as HTMLElement).blur();

/** Goes to a stage; to its heading, where one is there already. */
function goTo(stage: Stage): void {
  leaveField();
  if (useView.getState().stage === stage) document.querySelector<HTMLElement>('[aria-label="Sheet"] h2')?.focus();
  else setView({ stage });
}

/** The focus goes from the stages to the sheet, on to the table, and round again. */
function nextPart(): void {
  const parts = ['[aria-label="Stages"]', '[aria-label="Sheet"]', '[role="application"]']
    .map((s) => document.querySelector<HTMLElement>(s))
    .filter((e) => e !== null);
  const at = parts.findIndex((p) => p.contains(document.activeElement));
  const next = parts[(at + 1) % parts.length];
  (next?.matches('[tabindex]')
    ? next
    : next?.querySelector<HTMLElement>('[aria-current] , button, input, textarea, [tabindex="0"]')
  )?.focus();
}

/** Where a menu comes that no button opens: beside what has the focus, or in the middle of the window. */
function menuPlace(): { left: number; top: number } {
  const at = document.activeElement?.closest('[role="treeitem"], input, textarea, button')?.getBoundingClientRect();
  leaveField();
  return at?.width ? { left: at.left + 24, top: at.bottom } : { left: window.innerWidth / 2 - 150, top: 120 };
}

/** Links what is picked into the other set-up; where there are several, asks into which. */
function linkPicked(): void {
  const others = otherSetups(useOpenJob.getState());
  if (others.length === 1) linkPickedInto(others[0].id);
  else setView({ linkInto: menuPlace() });
}

const lookFrom = (to: 'corner' | 'top' | 'front' | 'side' | 'under') =>
  setView((v) => ({ camera: { to, n: v.camera.n + 1 }, table: v.table === 'plan' ? 'both' : v.table }));

function laySection(way: 'level' | 'upright'): void {
  const { blank } = useOpenJob.getState().job!;
  setView({ sectionOpen: true, section: way === 'level' ? levelLine(blank) : uprightLine(blank) });
}

const hasJob = () => !!useOpenJob.getState().job;
const hasPick = () => useView.getState().picked.length > 0;
/** How far an arrow moves things, mm: a millimetre or ten, a sixteenth of an inch or half of one. */
const step = (far: boolean) => (useOpenJob.getState().job?.unit === 'in' ? 25.4 / (far ? 2 : 16) : far ? 10 : 1);

export const actions: readonly Action[] = [
  {
    id: 'undo',
    name: 'Undo',
    shortcut: 'Ctrl+Z',
    enabled: () => useOpenJob.getState().past.length > 0,
    run: () => useOpenJob.getState().undo(),
  },
  {
    id: 'redo',
    name: 'Redo',
    shortcut: 'Ctrl+Shift+Z',
    enabled: () => useOpenJob.getState().future.length > 0,
    run: () => useOpenJob.getState().redo(),
  },
  { id: 'commands', name: 'Show all actions', shortcut: 'Ctrl+K', run: () => setView({ commands: true }) },
  { id: 'shortcuts', name: 'Show all shortcuts', shortcut: '?', run: () => setView({ shortcuts: true }) },
  { id: 'next-part', name: 'Go to the next part of the window', shortcut: 'F6', run: nextPart },
  {
    id: 'export',
    name: 'Export this job to a file',
    shortcut: 'Ctrl+S',
    enabled: hasJob,
    run: () => (leaveField(), void exportOpenJob()),
  },
  { id: 'library', name: 'Open the tool library', shortcut: 'L', run: () => setView({ library: true }) },
  { id: 'group-cuts', name: 'Group the cuts by cutter', run: groupByCutter },
  ...stages.map((s, i): Action => ({
    id: `stage-${s}`,
    name: `Go to ${stageNames[s]}`,
    shortcut: `Alt+${i + 1}`,
    run: () => goTo(s),
  })),
  {
    id: 'link',
    name: 'Link into another set-up',
    enabled: () => hasPick() && otherSetups(useOpenJob.getState()).length > 0,
    run: linkPicked,
  },
  ...pieceActions,
  { id: 'own', name: 'Make the picked links their own', enabled: () => pickedItems().some(sourceOf), run: ownPicked },
  {
    id: 'setup-next',
    name: 'Show the next set-up',
    enabled: () => (useOpenJob.getState().whole?.setups.length ?? 0) > 1,
    run: showNextSetup,
  },
  {
    id: 'setup-y',
    name: 'Add a set-up: the other face, turned left to right',
    enabled: hasJob,
    run: () => addSetup('y'),
  },
  {
    id: 'setup-x',
    name: 'Add a set-up: the other face, turned front to back',
    enabled: hasJob,
    run: () => addSetup('x'),
  },
  { id: 'setup-same', name: 'Add a set-up: the same face again', enabled: hasJob, run: () => addSetup('none') },
  { id: 'setup-blank', name: 'Add a set-up: another blank', enabled: hasJob, run: () => addSetup('blank') },
  { id: 'view-plan', name: 'Show the plan', shortcut: '1', run: () => setView({ table: 'plan' }) },
  { id: 'view-solid', name: 'Show the solid', shortcut: '2', run: () => setView({ table: 'solid' }) },
  { id: 'view-both', name: 'Show plan and solid', shortcut: '3', run: () => setView({ table: 'both' }) },
  {
    id: 'fit',
    name: 'Fit the blank into the view',
    shortcut: '0',
    run: () => setView((v) => ({ planFit: v.planFit + 1, camera: { to: 'fit', n: v.camera.n + 1 } })),
  },
  { id: 'paths', name: 'Show or hide the paths', shortcut: 'P', run: () => setView((v) => ({ paths: !v.paths })) },
  {
    id: 'paths-of-cut',
    name: 'Show or hide the paths of the open cut',
    shortcut: 'Shift+P',
    enabled: () => !!useView.getState().cutId,
    run: () => togglePaths([useView.getState().cutId!, ...useView.getState().alsoCuts]),
  },
  {
    id: 'section',
    name: 'Show or fold the section',
    shortcut: 'S',
    run: () => setView((v) => ({ sectionOpen: !v.sectionOpen })),
  },
  ...(['corner', 'top', 'front', 'side', 'under'] as const).map((to): Action => ({
    id: `camera-${to}`,
    name: `Look at the solid from ${to === 'under' ? 'below' : `the ${to}`}`,
    run: () => lookFrom(to),
  })),
  ...(['level', 'upright'] as const).map((way): Action => ({
    id: `section-${way}`,
    name: `Lay the section ${way} through the middle`,
    enabled: hasJob,
    run: () => laySection(way),
  })),
  ...itemKinds
    .filter((k) => k.offered !== false)
    .map((k): Action => ({
      id: `add-${k.id}`,
      name: `Add ${k.name.toLowerCase()}`,
      enabled: hasJob,
      run: () => addItem(k.id),
    })),
  {
    id: 'cut-as',
    name: 'Cut this as\u2026',
    shortcut: 'Ctrl+Enter',
    enabled: hasPick,
    run: () => setView({ cutAs: menuPlace() }),
  },
  ...formKinds.map((k): Action => ({
    id: `form-${k.id}`,
    name: `Add to the relief: ${k.name.toLowerCase()}`,
    enabled: hasJob,
    run: () =>
      k.ofFile
        ? chooseReliefFile(k.ofFile)
        : k.ofLibrary
          ? setView({ reliefLibrary: true, stage: 'relief' })
          : addForm(k.id),
  })),
  ...(Object.keys(reliefFormats) as ReliefFormat[]).map((format): Action => ({
    id: `export-relief-${format}`,
    name: `Export the relief as ${reliefFormats[format]}`,
    enabled: hasJob,
    run: () => void exportRelief(format),
  })),
  ...cutKinds.map((k): Action => ({
    id: `cut-${k.id}`,
    name: `Add a cut: ${k.name.toLowerCase()}`,
    enabled: hasJob,
    run: () => addCut(k.id, useLibrary.getState().cutters),
  })),
  ...planTools.map(({ id, name, shortcut }): Action => ({
    id: `tool-${id}`,
    name,
    shortcut,
    onTable: true,
    enabled: hasJob,
    run: () => setView({ tool: id, stage: 'artwork' }),
  })),
  { id: 'import-artwork', name: 'Import a drawing or picture', shortcut: 'Ctrl+O', enabled: hasJob, run: chooseFiles },
  {
    id: 'trace-again',
    name: 'Trace the picture behind the picked drawing again',
    enabled: hasPick,
    run: tracePickedAgain,
  },
  { id: 'add-font', name: 'Add a font file to this job', enabled: hasJob, run: chooseFont },
  { id: 'letters-along', name: 'Set the picked letters along the picked line', enabled: hasPick, run: setAlongPicked },
  { id: 'export-svg', name: 'Export the artwork as SVG', enabled: hasJob, run: () => exportArtwork('svg') },
  { id: 'export-dxf', name: 'Export the artwork as DXF', enabled: hasJob, run: () => exportArtwork('dxf') },
  {
    id: 'clip-cut',
    name: 'Cut to clipboard',
    shortcut: 'Ctrl+X',
    enabled: hasPick,
    run: () => void (copyToClipboard() && deletePicked()),
  },
  {
    id: 'clip-copy',
    name: 'Copy the picked items to the clipboard',
    shortcut: 'Ctrl+C',
    enabled: hasPick,
    run: () => void copyToClipboard(),
  },
  { id: 'clip-paste', name: 'Paste artwork', shortcut: 'Ctrl+V', enabled: hasJob, run: pasteFromClipboard },
  { id: 'group', name: 'Group the picked items', shortcut: 'G', onTable: true, enabled: hasPick, run: groupPicked },
  { id: 'ungroup', name: 'Ungroup', shortcut: 'Shift+G', onTable: true, enabled: hasPick, run: ungroupPicked },
  {
    id: 'mirror-upright',
    name: 'Mirror left to right',
    shortcut: 'M',
    onTable: true,
    enabled: hasPick,
    run: () => mirrorPicked('upright'),
  },
  {
    id: 'mirror-level',
    name: 'Mirror top to bottom',
    shortcut: 'Shift+M',
    onTable: true,
    enabled: hasPick,
    run: () => mirrorPicked('level'),
  },
  {
    id: 'turn-left',
    name: 'Turn a quarter to the left',
    shortcut: 'T',
    onTable: true,
    enabled: hasPick,
    run: () => turnPicked(90),
  },
  {
    id: 'turn-right',
    name: 'Turn a quarter to the right',
    shortcut: 'Shift+T',
    onTable: true,
    enabled: hasPick,
    run: () => turnPicked(-90),
  },
  { id: 'to-outlines', name: 'Convert the picked items to outlines', enabled: hasPick, run: toDrawings },
  ...combinations.map((how): Action => ({
    id: `combine-${how}`,
    name: `${combinationNames[how]} the picked outlines`,
    enabled: hasPick,
    run: () => void workOnShapes({ kind: 'combine', how }, combinationNames[how]),
  })),
  ...alignments.map((a): Action => ({
    id: `align-${a}`,
    name: `Align ${a} in the blank`,
    enabled: hasPick,
    run: () => alignPicked(a, 'blank'),
  })),
  { id: 'distribute-x', name: 'Distribute from left to right', enabled: hasPick, run: () => distributePicked('x') },
  { id: 'distribute-y', name: 'Distribute from bottom to top', enabled: hasPick, run: () => distributePicked('y') },
  { id: 'add-layer', name: 'Add a layer', enabled: hasJob, run: addLayer },
  {
    id: 'pick-all',
    name: 'Pick all artwork',
    shortcut: 'Ctrl+A',
    enabled: hasJob,
    run: () => setView({ picked: pickable(useOpenJob.getState().job!).map((i) => i.id) }),
  },
  {
    id: 'pick-within',
    name: 'Pick what lies within the picked outline',
    shortcut: 'W',
    onTable: true,
    enabled: hasPick,
    run: pickWithin,
  },
  {
    id: 'pick-none',
    name: 'Pick nothing',
    shortcut: 'Escape',
    run: () => setView({ picked: [], marked: null, pinning: false, pins: [] }),
  },
  { id: 'delete', name: 'Delete the picked items', shortcut: 'Delete', enabled: hasPick, run: deletePicked },
  { id: 'copy', name: 'Copy the picked items', shortcut: 'Ctrl+D', enabled: hasPick, run: copyPicked },
  {
    id: 'centre',
    name: 'Centre the picked items in the blank',
    shortcut: 'C',
    onTable: true,
    enabled: hasPick,
    run: centrePicked,
  },
  ...(
    [
      ['left', 'ArrowLeft', -1, 0],
      ['right', 'ArrowRight', 1, 0],
      ['up', 'ArrowUp', 0, 1],
      ['down', 'ArrowDown', 0, -1],
    ] as const
  ).flatMap(([name, key, dx, dy]) =>
    [false, true].map((shift): Action => ({
      id: `nudge-${name}${shift ? '-far' : ''}`,
      name: `Move ${name} by a ${shift ? 'long ' : ''}step`,
      shortcut: `${shift ? 'Shift+' : ''}${key}`,
      onTable: true,
      enabled: hasPick,
      run: () => nudge(dx * step(shift), dy * step(shift)),
    })),
  ),
];

export const action = (id: string): Action => actions.find((a) => a.id === id)!;

/** Runs the action whose shortcut was pressed; true when there was one. */
export function onShortcut(e: KeyboardEvent): boolean {
  const target = e.target as HTMLElement;
  const typing =
    target.closest('input, textarea, [role="combobox"], [role="listbox"], [role="menu"], [contenteditable]') !== null;
  const key = e.key.length === 1 ? e.key.toUpperCase() : e.key;
  const press = `${e.ctrlKey || e.metaKey ? 'Ctrl+' : ''}${e.altKey ? 'Alt+' : ''}${e.shiftKey && (e.key.length > 1 || e.ctrlKey || e.metaKey || /^[A-Z]$/.test(key)) ? 'Shift+' : ''}${e.altKey && e.code.startsWith('Digit') ? e.code.slice(5) : key}`;
  const found = actions.find(
    (a) =>
      a.shortcut === press || (a.id === 'redo' && press === 'Ctrl+Y') || (a.id === 'delete' && press === 'Backspace'),
  );
  // The browser's own paste brings files and drawings with it: see `onPaste`.
  if (!found || found.id === 'clip-paste') return false;
  // What changes artwork or tool by a bare key does so on the table alone: in lists arrows walk, and letters typed elsewhere do nothing.
  if (!/^(Ctrl|Alt)\+/.test(press) && found.onTable && !target.closest('[role="application"]')) return false;
  // While text is edited, only shortcuts with Ctrl that are not the text's own count.
  if (
    typing &&
    press !== 'F6' &&
    !(
      press.startsWith('Ctrl+') &&
      !['Ctrl+A', 'Ctrl+C', 'Ctrl+X', 'Ctrl+V', 'Ctrl+Z', 'Ctrl+Shift+Z', 'Ctrl+Y', 'Ctrl+D'].includes(press)
    ) &&
    !press.startsWith('Alt+')
  )
    return false;
  if (document.querySelector('[role="dialog"]') && found.id !== 'commands') return false;
  e.preventDefault();
  if (!found.enabled || found.enabled()) found.run();
  return true;
}
