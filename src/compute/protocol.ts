import type { CutPlan, Expected } from '@/core/cuts/kind';
import type { Item } from '@/core/artwork/item';
import type { Picture } from '@/core/artwork/trace/colours';
import type { TraceOptions } from '@/core/artwork/trace/options';
import type { TracedLayer } from '@/core/artwork/trace/trace';
import type { ImportedArtwork } from '@/core/exchange/items';
import type { Path } from '@/core/geometry/path';
import type { GaugeResult, ShapeTask } from './artwork';
import type { Seen } from './becoming';
import type { ReliefFile } from '@/core/pipeline/reliefShelf';
import type { ShapedRelief } from '@/core/pipeline/shaping';
import type { Derived } from './derived';
import type { Parcel } from './parcel';
import type { CastingValues, Job, OneSetup, TurnedOver } from '@/core/job/job';
import type { Quality } from './keys';
import type { Finding } from '@/core/proof/check';
import type { ProgramFile } from '@/core/pipeline/programs';
import type { Held, SectionTime } from '@/core/pipeline/proving';
import type { Pair } from '@/core/job/pairs';
import type { Cast } from '@/core/pipeline/casting';
import type { Fitted } from '@/core/pipeline/fitting';
import type { Casting } from '@/core/proof/casting';
import type { LineOnTable } from '@/core/proof/lookup';
import type { Played } from '@/core/proof/player';
import type { KeptRelief } from '@/core/relief/keptRelief';
import type { HeightField } from '@/core/relief/field';
import type { LevelOptions } from '@/core/relief/levels';
import type { OutlinesAsked, ReliefOutline } from '@/core/relief/outlined';
import type { MeshBox, Sizes, Standing } from '@/core/relief/mesh';
import type { SmallPicture } from '@/core/relief/small';

/** What goes between the window and its workers. */
/** A program, and the ends of lines in each of its chunks: whoever shows it need not look for them. */
export interface CountedFile extends ProgramFile {
  readonly breaks: readonly number[];
}

export interface ProofResult {
  readonly files: readonly CountedFile[];
  readonly tools: readonly { tool: number; cutterId: string }[];
  readonly field: HeightField;
  /** Depths of what an earlier set-up has cut into the face that lies down now, as seen from above; null where nothing was. */
  readonly under: HeightField | null;
  readonly findings: readonly Finding[];
  /** What may stay on a relief and does, once it has been compared. */
  readonly stays: readonly Finding[];
  /** Whether it has been held against what is wanted: the last of the checks. */
  readonly compared: boolean;
  readonly times: readonly SectionTime[];
  readonly minutes: number;
  readonly toolChanges: number;
  /** Minutes for which nothing moves. */
  readonly standing: number;
  /** Moves in all programs, for scrubbing. */
  readonly moves: number;
}

/** Where the player stands, with a copy of its field. */
export type PlayState = Played;

export interface SectionResult {
  /** Wanted height at evenly spaced points of the line. */
  readonly target: Float64Array;
}

export type ReportProgress = (done: number) => void;

/** How far a cut is planned, and, once that is known, about what it will hold. */
export interface Planning {
  readonly done: number;
  readonly expected: Expected | null;
}

export interface OpenedDrawing {
  readonly unitKnown: boolean;
  readonly width: number;
  readonly height: number;
}

/** Work on artwork: reading files, tracing, shapes, the gap gauge. */
export interface ArtworkApi {
  /** Reads a drawing and keeps it; tells whether it says its unit, and its size in units (mm when it says it). */
  openDrawing(name: string, bytes: Uint8Array): Promise<OpenedDrawing>;
  /** Makes items of the opened drawing and keeps them, to be fetched in portions: a window is not held up by thousands at once. */
  makeItems(
    name: string,
    here: {
      readonly blank: { readonly width: number; readonly height: number };
      readonly layers: readonly { readonly id: string; readonly name: string }[];
      readonly unit?: number;
    },
  ): Omit<ImportedArtwork, 'items'> & { readonly count: number };
  madeItems(from: number, to: number): Item[];
  /**
   * Reads a mesh to see whether it is sound: how many triangles it has, and its box; `kept` is what of it a job keeps, where that is
   * not the file itself.
   */
  lookAtMesh(
    name: string,
    bytes: Uint8Array,
  ): Promise<{ readonly triangles: number; readonly box: MeshBox; readonly kept: Uint8Array | null }>;
  /** How large a mesh is, in its own unit, for each of some ways to stand. */
  meshSizes(name: string, bytes: Uint8Array, standings: readonly Standing[]): Promise<Sizes[]>;
  /** Reads a picture to see whether it is sound: its size in pixels, and how many greys its file can tell apart. */
  lookAtPicture(
    name: string,
    bytes: Uint8Array,
  ): { readonly width: number; readonly height: number; readonly greys: number };
  /** An ornament as it looks, in at most so many pixels along each side. */
  ornamentLook(id: string, most: number): SmallPicture;
  /** Outlines of a relief: at heights, round its border, round its flat places. */
  reliefOutlines(field: HeightField, asked: OutlinesAsked, options: LevelOptions): ReliefOutline[];
  /** A relief as a closed body down to the underside, and how far apart its corners lie, mm. */
  reliefBody(
    field: HeightField,
    blank: Pick<OneSetup['blank'], 'width' | 'height' | 'thickness'>,
    title: string,
    format: 'stl' | 'obj',
  ): { readonly bytes: Uint8Array; readonly cell: number };
  /** A casting as a closed body that lies on its back, `cold` times as large as in its mould; how far apart its corners lie, mm. */
  castBody(casting: Casting, cold: number, title: string): { readonly bytes: Uint8Array; readonly cell: number };
  /** A relief as it is kept in the maker's own library; null where it is empty. */
  keptRelief(field: HeightField, id: string, name: string): KeptRelief | null;
  /** A relief as a PNG of sixteen bits, and what black and white stand for, mm. */
  reliefPicture(field: HeightField): {
    readonly bytes: Uint8Array;
    readonly lowest: number;
    readonly highest: number;
  };
  /** What to begin tracing a picture with: the threshold that parts it best, and how many colours it is drawn in. */
  lookAt(picture: Picture): { threshold: number; colours: number };
  trace(ticket: number, picture: Picture, options: TraceOptions, progress: ReportProgress): TracedLayer[];
  shapes(items: readonly Item[], task: ShapeTask): Path[][];
  gauge(items: readonly Item[], radii: readonly number[]): GaugeResult;
}

/** What each worker with a handle answers. */
export interface Living {
  /** Holds a lock of this name as long as the worker lives; answers when it has it. */
  hold(name: string): Promise<void>;
  /** Where tickets are given up, those up to the number that stands there; and the mark of the page (`./stepAside.ts`). */
  setMarks(stop: SharedArrayBuffer | null, page: SharedArrayBuffer | null): void;
}

/** A set-up with its relief; null where no cut asks for it. */
export interface WithRelief {
  readonly job: OneSetup;
  readonly relief: HeightField | null;
}

/** The calls that a compute worker answers. Cancelled calls reject with an error called "Cancelled". */
export interface ComputeApi extends ArtworkApi, Living {
  /** Keeps results on this device under a key. */
  keep(key: string, derived: Parcel<Derived>): Promise<void>;
  putFonts(files: Record<string, Uint8Array>): void;
  putReliefFiles(files: Record<string, ReliefFile>): void;
  /** Shapes the relief of a set-up with nodes so far apart, mm. */
  shape(ticket: number, job: Parcel<OneSetup>, cell: number, progress: ReportProgress): ShapedRelief;
  /** Helps whoever is at the other end of a port with cutting and shaping, and is helped over a port: see ./board.ts. */
  lend(port: MessagePort): void;
  borrow(port: MessagePort): void;
  plan(ticket: number, of: Parcel<WithRelief>, cutId: string, progress: (p: Planning) => void): CutPlan;
  /** How long a plan would take on the machine of a set-up, minutes. */
  minutes(of: Parcel<{ readonly plan: CutPlan; readonly run: OneSetup['run'] }>): number;
  /** Proves a set-up; `before` is the set-up that it starts from, which this worker has proven. */
  prove(
    ticket: number,
    of: Parcel<WithRelief & { readonly plans: readonly (readonly [string, CutPlan])[] }>,
    cell: number,
    before: { readonly setup: string; readonly turned: TurnedOver; readonly name: string } | null,
    progress: ReportProgress,
    /** What of the field is looked at, if anything is, and who is shown it while it is worked out: coarsely, then part by part. */
    seen: Seen | null,
    show: ((glimpse: HeightField) => void) | null,
  ): ProofResult;
  /** Forgets all set-ups: another job is opened. */
  clear(): void;
  /** Holds the last proof of a set-up against what is wanted; all findings, with those of that check, and what stays. */
  compare(ticket: number, setup: string, progress: ReportProgress): Held;
  /** Cuts on, or from the start again, until a move of the last proven programs; only some cuts if asked. */
  play(ticket: number, setup: string, move: number, cell: number, only: readonly string[] | null): PlayState;
  /** Where a line of the last proven programs lies, and the line that runs nearest to a point. */
  lineOnTable(setup: string, file: string, line: number): LineOnTable | null;
  lineNear(setup: string, x: number, y: number, reach: number): LineOnTable | null;
  /** What the last proven programs leave along a line: cut exactly there. Null before there is a proof. */
  along(setup: string, x0: number, y0: number, x1: number, y1: number, count: number): Float64Array | null;
  /** Puts a plug into its pocket, as both were proven last. Rejects with "Cancelled" while one of them is not proven. */
  fit(ticket: number, pair: Pair, progress: ReportProgress): Fitted;
  /** Casts in what a set-up was proven to cut last. Rejects with "Cancelled" while it is not proven. */
  cast(ticket: number, setup: string, values: CastingValues, progress: ReportProgress): Cast;
  section(of: Parcel<WithRelief>, x0: number, y0: number, x1: number, y1: number, count: number): SectionResult;
}

/** The calls that the engine answers. What it has worked out it tells by itself. */
export interface EngineApi extends Living {
  /** Shapes the relief of a set-up that is not the one shown, or not as it is shown. */
  shapedAside(job: Parcel<OneSetup>): Promise<ShapedRelief>;
  /** Tells over a port, in parcels, from now on. */
  tellOver(port: MessagePort): void;
  putFonts(files: Record<string, Uint8Array>): void;
  putReliefFiles(files: Record<string, ReliefFile>): void;
  /** Fonts cannot be brought: work that waits for them fails with these words. */
  lackFonts(why: string): void;
  /** Begins those who work for it, before there is any work. */
  beginWorkers(): void;
  /** The job as it is now, and the set-up that is shown; null when it is closed. Numbers rise; one that comes late is left out. */
  setJob(number: number, job: Parcel<{ readonly whole: Job; readonly shown: string }> | null): void;
  /** Who reads kept results for it. */
  recallThrough(ask: (key: string) => Promise<Derived | null>): void;
  setQuality(quality: Quality): void;
  stopWork(): void;
  resumeWork(): void;
  /** What of the field is looked at; null where no view looks. */
  look(at: Seen | null): void;
  emptyKept(): Promise<void>;
  /** The surface of a job that is not open, for its picture; null when there is nothing to show, or when it was called off. */
  portrayed(job: Parcel<OneSetup>): Promise<HeightField | null>;
  callOffSurface(): void;
  section(setup: string, x0: number, y0: number, x1: number, y1: number, count: number): Promise<SectionResult>;
  play(setup: string, move: number, cell: number, only: readonly string[] | null): Promise<PlayState>;
  lineOnTable(setup: string, file: string, line: number): Promise<LineOnTable | null>;
  lineNear(setup: string, x: number, y: number, reach: number): Promise<LineOnTable | null>;
  along(setup: string, x0: number, y0: number, x1: number, y1: number, count: number): Promise<Float64Array | null>;
  fit(pair: Pair): Promise<Fitted>;
  cast(setup: string, values: CastingValues): Promise<Cast>;
}
