import type { Tint } from '@/core/relief/tint';
import { create } from 'zustand';
import type { PlayState } from '@/compute/protocol';
import type { LineOnTable } from '@/core/proof/lookup';
import type { Brush } from '@/core/relief/sculpt';
import { local } from '@/store/local';
import type { Tool } from './planTools';

export const stages = ['blank', 'artwork', 'relief', 'cuts', 'proof', 'run'] as const;
export type Stage = (typeof stages)[number];
export const stageNames: Record<Stage, string> = {
  blank: 'Blank',
  artwork: 'Artwork',
  relief: 'Relief',
  cuts: 'Cuts',
  proof: 'Proof',
  run: 'Run',
};

export type TableView = 'plan' | 'solid' | 'both';
export interface SectionLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The relief without a form of it, or what the cuts leave. */
export type Beside = { readonly without: string } | 'proof';

export interface View {
  stage: Stage;
  /** Picked items. */
  picked: string[];
  /** The item that the cursor points at, on the table or in the list. */
  hovered: string | null;
  cutId: string | null;
  /** The form of the relief that is open. */
  formId: string | null;
  table: TableView;
  paths: boolean;
  sectionOpen: boolean;
  /** Coordinates count from the blank's corner instead of the datum. */
  fromCorner: boolean;
  section: SectionLine | null;
  /** Where on the section line the cursor stands, 0..1; null when it is elsewhere. */
  sectionAt: number | null;
  cursor: { x: number; y: number } | null;
  /** A place that a finding points at. */
  marked: { x: number; y: number; text: string } | null;
  commands: boolean;
  shortcuts: boolean;
  /** The menu of the second button: where it is open, pixels of the window, and what it is about. */
  menu: { readonly x: number; readonly y: number; readonly of: 'items' | 'table' | 'solid' | 'section' } | null;
  /** What the Proof stage shows in the round: the blank as it is cut, what is cast in it beside it or alone, or an inlay in its pocket. */
  piece: 'blank' | 'beside' | 'cast' | 'joined';
  /** Where the menu of kinds of cut is open, pixels of the window. */
  cutAs: { readonly left: number; readonly top: number } | null;
  /** Where the list of set-ups that artwork is linked into is open. */
  linkInto: { readonly left: number; readonly top: number } | null;
  /** A drawing that does not say its unit, and who waits for the answer (mm a unit, or null to leave it). */
  unitQuestion: {
    /** Why it is asked. */
    readonly says: string;
    /** What it is multiplied by to fit into the blank, where that is an answer too. */
    readonly fitting?: number;
    readonly name: string;
    readonly width: number;
    readonly height: number;
    readonly answer: (unit: number | null) => void;
  } | null;
  /** What pair is being made of what is picked: an inlay by its walls, or dies. */
  inlay: 'leaning' | 'upright' | 'dies' | null;
  /** What a mould is being made of. */
  mould: 'picked' | 'relief' | null;
  library: boolean;
  play: PlayState | null;
  /** Standard view asked of the solid view; counts up so that asking twice works. */
  camera: { to: 'fit' | 'top' | 'front' | 'side' | 'corner' | 'under'; n: number };
  planFit: number;
  file: string | null;
  /** The line of a program that is lit on the table. */
  lit: LineOnTable | null;
  /** Further cuts that are chosen beside the open one. */
  alsoCuts: string[];
  tool: Tool;
  /** The brush with which a relief is sculpted; as it comes, until its size is chosen: a share of the blank. */
  brush: Omit<Brush, 'radius'> & { readonly radius: number | null };
  /** The item or cut in whose first field one goes on; counts up so that asking twice works. */
  typing: { readonly id: string; readonly n: number } | null;
  /** A picture that is being traced: a new one, or again the one of an item. */
  tracing: File | { readonly again: string } | null;
  /**
   * How the relief is shown: where its light comes from and how high it stands, degrees; the draft below which it is tinted on the
   * plan, and what it is coloured by.
   */
  seen: { readonly from: number; readonly high: number; readonly draft: number | null; readonly tint: Tint };
  /** What is shown left of a line beside the relief, and where that is, as part of the blank's width; null for nothing. */
  split: { readonly of: Beside; readonly at: number } | null;
  /** Id of the finest cutter that the relief is meant for, null for none; undefined: the finest that cuts it. */
  finest: string | null | undefined;
  /** Whether the library of reliefs is open. */
  reliefLibrary: boolean;
  /** Groups of forms whose forms are not listed. */
  foldedForms: readonly string[];
  /** Whether a press on the plan pins the height of the relief there; the places whose heights are pinned: two at most, mm. */
  pinning: boolean;
  pins: readonly { readonly x: number; readonly y: number }[];
  /** Places that the gap gauge points at: mm, with their widths. */
  gauged: readonly { x: number; y: number; width: number }[];
}

/** What this window shows. Not part of the job, not undone. */
export const useView = create<View>(() => ({
  stage: 'cuts',
  picked: [],
  hovered: null,
  cutId: null,
  formId: null,
  table: 'both',
  paths: true,
  sectionOpen: true,
  fromCorner: false,
  section: null,
  sectionAt: null,
  cursor: null,
  marked: null,
  commands: false,
  shortcuts: false,
  menu: null,
  piece: 'blank',
  cutAs: null,
  linkInto: null,
  unitQuestion: null,
  inlay: null,
  mould: null,
  library: false,
  play: null,
  camera: { to: 'corner', n: 0 },
  planFit: 0,
  file: null,
  lit: null,
  alsoCuts: [],
  tool: 'pick',
  brush: { tool: 'raise', radius: null, height: 0.5, share: 0.5, soft: 0.8, level: 0, mirror: 'none' },
  typing: null,
  tracing: null,
  seen: { from: 135, high: 47, draft: null, tint: 'material' },
  split: null,
  pinning: false,
  pins: [],
  finest: undefined,
  reliefLibrary: false,
  foldedForms: [],
  gauged: [],
}));

export const setView = useView.setState;

/** Closes what is open over the window, and puts everything else that it shows back as it was at first; the stage stays. */
export const resetView = (): void => setView(({ stage, table }) => ({ ...useView.getInitialState(), stage, table }));

const TABLES = 'mirvak-tables';
/** What each stage shows on the table: remembered on this device. */
const tables: Record<Stage, TableView> = {
  blank: 'plan',
  artwork: 'plan',
  relief: 'both',
  cuts: 'both',
  proof: 'solid',
  run: 'both',
};
if (typeof window !== 'undefined') {
  try {
    const kept = JSON.parse(local().getItem(TABLES) ?? '{}') as Record<string, unknown>;
    for (const s of stages) if (kept[s] === 'plan' || kept[s] === 'solid' || kept[s] === 'both') tables[s] = kept[s];
  } catch {
    // What cannot be read is as good as nothing kept.
  }
}
useView.setState((v) => ({ table: tables[v.stage] }));
useView.subscribe((now, before) => {
  if (now.stage !== before.stage && now.table === before.table) {
    if (tables[now.stage] !== now.table) setView({ table: tables[now.stage] });
    return;
  }
  if (now.table === before.table) return;
  tables[now.stage] = now.table;
  try {
    local().setItem(TABLES, JSON.stringify(tables));
  } catch {
    // A device without room for it starts with the usual views next time.
  }
});

/** Opens the menu of the second button where it was pressed. */
export const openMenu = (
  e: { clientX: number; clientY: number; preventDefault(): void },
  of: NonNullable<View['menu']>['of'],
): void => {
  e.preventDefault();
  setView({ menu: { x: e.clientX, y: e.clientY, of } });
};

/** Puts the caret into the first field of an item or cut, with all that stands in it selected. */
export const typeInto = (id: string): void => setView((v) => ({ typing: { id, n: (v.typing?.n ?? 0) + 1 } }));
