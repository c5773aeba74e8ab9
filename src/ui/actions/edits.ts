import { freeName } from '@/core/job/allSetups';
import { dropUses } from '@/core/job/uses';
import type { Item } from '@/core/artwork/item';
import { tracedFrom } from '@/core/artwork/trace/again';
import type { Cutter } from '@/core/cutters/cutter';
import { applied, type Recipe } from '@/core/job/recipe';
import { bringCutters } from '@/core/cutters/library';
import { freshCut } from '@/core/cuts/fresh';
import { kindOf } from '@/core/cuts/registry';
import { dropEmptyGroups, regroup, type Place } from '@/core/job/regroup';
import type { Cut, OneSetup } from '@/core/job/job';
import type { Form } from '@/core/relief/stack';
import { setAt } from '@/core/units/fields';
import { freshId } from '@/store/jobs';
import { useWork } from '@/compute/useWork';
import { useOpenJob } from '@/store/openJob';
import { setView, typeInto, useView } from '@/ui/view';
import { tell } from './tell';
import type { Merge } from '@/store/steps';

export { freeName };

export const edit = (name: string, recipe: (job: OneSetup) => void, merge?: Merge, setupId?: string) =>
  useOpenJob.getState().edit(name, recipe, merge, setupId);
export const jobNow = () => useOpenJob.getState().job;

/** The layer for new things: that of the last picked item, unless it is one that tracing made for a colour; else the first that is open. */
export function openLayer(job: OneSetup): string {
  const { picked } = useView.getState();
  const last = job.items.find((i) => i.id === picked[picked.length - 1]);
  const of = last && !tracedFrom(last) ? last.layer : undefined;
  const open = (id: string | undefined) => job.layers.some((l) => l.id === id && !l.locked && l.visible);
  return open(of) ? of! : (job.layers.find((l) => open(l.id)) ?? job.layers[0]).id;
}

/** Items that can be picked on the table: visible, on a visible layer that is not locked. */
export function pickable(job: OneSetup): Item[] {
  const open = new Set(job.layers.filter((l) => l.visible && !l.locked).map((l) => l.id));
  return job.items.filter((i) => i.visible && open.has(i.layer));
}

export function deletePicked(): void {
  const { picked } = useView.getState();
  if (!picked.length) return;
  edit(picked.length === 1 ? 'Delete item' : `Delete ${picked.length} items`, (j) => {
    j.items = j.items.filter((i) => !picked.includes(i.id));
    dropUses(j, (id) => picked.includes(id));
    dropEmptyGroups(j);
  });
  setView({ picked: [] });
}

/** Places of items in the job's list. Found before a change, since a draft pays for every item that is looked at. */
export function placesOf(ids: readonly string[]): number[] {
  const wanted = new Set(ids);
  const out: number[] = [];
  jobNow()?.items.forEach((i, k) => wanted.has(i.id) && out.push(k));
  return out;
}

export function nudge(dx: number, dy: number): void {
  const { picked } = useView.getState();
  const where = placesOf(picked);
  edit(
    'Move',
    (j) => {
      for (const k of where) {
        j.items[k].x += dx;
        j.items[k].y += dy;
      }
    },
    'nudge',
  );
}

/**
 * The set-up that holds an item or a cut. A sheet may lag behind on a busy device: what is typed into it belongs to what it
 * shows, though another set-up has come up meanwhile.
 */
const holderOf = (of: 'items' | 'cuts', id: string): string | undefined => {
  const { whole } = useOpenJob.getState();
  return whole && whole.setups.length > 1 ? whole.setups.find((s) => s[of].some((q) => q.id === id))?.id : undefined;
};
const change = <K extends 'items' | 'cuts'>(
  of: K,
  id: string,
  name: string,
  recipe: (q: OneSetup[K][number]) => void,
  merge?: Merge,
): void =>
  edit(
    name,
    (j) => {
      const q = (j[of] as OneSetup[K][number][]).find((v) => v.id === id);
      if (q) recipe(q);
    },
    merge,
    holderOf(of, id),
  );

export const changeItem = (id: string, name: string, recipe: (i: Item) => void, merge?: Merge): void =>
  change('items', id, name, recipe, merge);
/** Changes a form of the relief. */
export const changeForm = (id: string, name: string, recipe: (f: Form) => void, merge?: Merge): void =>
  edit(
    name,
    (j) => {
      const f = j.relief.forms.find((q) => q.id === id);
      if (f) recipe(f);
    },
    merge,
  );
export const changeCut = (id: string, name: string, recipe: (c: Cut) => void, merge?: Merge): void =>
  change('cuts', id, name, recipe, merge);

/** Adds a cut for what is picked. `stay`: the stage is not left for it. */
export function addCut(kind: string, library: readonly Cutter[], stay = false): void {
  const job = jobNow();
  if (!job) return;
  const k = kindOf(kind);
  const values = freshCut(kind, job.blank, job.unit, library);
  const cut: Cut = {
    id: freshId(),
    name: freeName(k.name, job.cuts),
    kind,
    enabled: true,
    items: [...useView.getState().picked],
    values,
    overrides: {},
  };
  edit(`Add ${k.name.toLowerCase()}`, (j) => {
    bringCutters(j, k.cutters(values), library);
    j.cuts.push(cut);
  });
  if (stay) {
    setView({ cutId: cut.id });
    return tell('success', `"${cut.name}" is in the cut plan.`, {
      words: 'Open it',
      run: () => setView({ cutId: cut.id, stage: 'cuts' }),
    });
  }
  setView({ cutId: cut.id, stage: 'cuts' });
  typeInto(cut.id);
}

/** Changes values of a cut, by their keys: of the cut as it is in the job, since a sheet on a busy device may show it as it was. */
export function setCutValue(
  id: string,
  changes: Readonly<Record<string, unknown>>,
  label: string,
  library: readonly Cutter[],
  merge?: Merge,
): void {
  edit(
    `Change ${label.toLowerCase()}`,
    (j) => {
      const c = j.cuts.find((q) => q.id === id);
      if (!c) return;
      for (const [key, value] of Object.entries(changes)) c.values = setAt(c.values, key, value);
      bringCutters(j, kindOf(c.kind).cutters(c.values), library);
    },
    merge,
    holderOf('cuts', id),
  );
}

/** Adds the cuts of a recipe for what is picked. */
export function applyRecipe(recipe: Recipe): void {
  const job = jobNow();
  if (!job) return;
  const { cuts, cutters } = applied(recipe, job, useView.getState().picked, freshId);
  edit(`Apply ${recipe.name}`, (j) => {
    j.cutters.push(...structuredClone(cutters));
    j.cuts.push(...structuredClone(cuts));
  });
  setView({ cutId: cuts[0].id, alsoCuts: cuts.slice(1).map((c) => c.id), stage: 'cuts' });
}

/** Cuts that begin with the same cutter after each other, those that part the piece from the blank last; else in their order. */
export const groupByCutter = (): void =>
  edit('Group cuts by cutter', (j) => {
    const first = new Map<string, number>();
    const key = (c: Cut) => kindOf(c.kind).cutters(c.values)[0] ?? '';
    j.cuts.forEach((c, i) => first.has(key(c)) || first.set(key(c), i));
    const free = (c: Cut) => (c.kind === 'profile' && c.values.through === true ? 1 : 0);
    j.cuts = [...j.cuts].sort((a, b) => free(a) - free(b) || first.get(key(a))! - first.get(key(b))!);
  });

/** Two neighbouring files change places: the cuts of the later one come before those of the earlier one. */
export const moveFile = (earlier: readonly string[], later: readonly string[]): void =>
  edit('Reorder programs', (j) => {
    const carried = j.cuts.filter((c) => later.includes(c.id));
    const rest = j.cuts.filter((c) => !later.includes(c.id));
    rest.splice(
      Math.max(
        0,
        rest.findIndex((c) => earlier.includes(c.id)),
      ),
      0,
      ...carried,
    );
    j.cuts = rest;
  });

/** Moves picked rows of the list, or a group, to another place of it. */
export function moveRows(what: Parameters<typeof regroup>[1], to: Place): void {
  edit(
    'group' in what ? 'Move group' : what.items.length === 1 ? 'Move item' : `Move ${what.items.length} items`,
    (j) => void regroup(j, what, to),
  );
}

/** Puts the library's cutter in place of the job's own copy; the slot stays the job's. */
export const takeFromLibrary = (cutter: Cutter): void =>
  edit('Take the changed cutter', (j) => {
    const i = j.cutters.findIndex((c) => c.id === cutter.id);
    if (i >= 0) j.cutters[i] = { ...cutter, slot: j.cutters[i].slot };
  });

type Spot = { readonly x: number; readonly y: number };
/** Holding tabs of a cut, each at its own place from now on. */
function putTabs(cutId: string, name: string, at: readonly Spot[], merge?: Merge): void {
  edit(
    name,
    (j) => {
      const cut = j.cuts.find((c) => c.id === cutId);
      if (cut)
        cut.values = {
          ...cut.values,
          tabs: { ...(cut.values.tabs as object), by: 'count', count: at.length, at: at.map(({ x, y }) => ({ x, y })) },
        };
    },
    merge,
  );
}
const tabsNow = (cutId: string): readonly Spot[] => useWork.getState().cuts[cutId]?.plan.tabs ?? [];
export const addTab = (cutId: string, x: number, y: number): void =>
  putTabs(cutId, 'Add holding tab', [...tabsNow(cutId), { x, y }]);
export const removeTab = (cutId: string, index: number): void =>
  putTabs(
    cutId,
    'Take holding tab away',
    tabsNow(cutId).filter((_, i) => i !== index),
  );
/** `places` are where all of them stood when the drag began. */
export const moveTab = (
  cutId: string,
  index: number,
  places: readonly Spot[],
  x: number,
  y: number,
  merge?: Merge,
): void =>
  putTabs(
    cutId,
    'Move tab',
    places.map((p, i) => (i === index ? { x, y } : p)),
    merge,
  );

/** Hides or shows the paths of cuts; they are cut all the same. */
export const togglePaths = (ids: readonly string[]): void =>
  edit('Hide or show paths', (j) => {
    const some = j.cuts.filter((c) => ids.includes(c.id));
    const hide = some.some((c) => !c.hidden);
    for (const c of some) {
      if (hide) c.hidden = true;
      else delete c.hidden;
    }
  });

export function copyCut(id: string): void {
  const job = jobNow();
  const cut = job?.cuts.find((c) => c.id === id);
  if (!job || !cut) return;
  const fresh = { ...structuredClone(cut), id: freshId(), name: freeName(cut.name, job.cuts) };
  edit('Copy cut', (j) => void j.cuts.splice(j.cuts.findIndex((c) => c.id === id) + 1, 0, fresh));
  setView({ cutId: fresh.id });
}

export function deleteCut(id: string): void {
  edit('Delete cut', (j) => void (j.cuts = j.cuts.filter((c) => c.id !== id)));
  if (useView.getState().cutId === id) setView({ cutId: null });
}

export const moveCut = (id: string, to: number): void =>
  edit('Reorder cuts', (j) => {
    const from = j.cuts.findIndex((c) => c.id === id);
    if (from < 0) return;
    const [c] = j.cuts.splice(from, 1);
    j.cuts.splice(Math.max(0, Math.min(j.cuts.length, to)), 0, c);
  });

/** Picks an item on the table: alone, or in addition. */
export function pickItem(id: string, add: boolean): void {
  const { picked } = useView.getState();
  setView({ picked: add ? (picked.includes(id) ? picked.filter((p) => p !== id) : [...picked, id]) : [id] });
}
