import { around, turnedAbout, wrap } from '@/core/artwork/arrange';
import { itemBounds, type Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { placesAlong, scaledItem, shear } from '@/core/artwork/transform';
import { tracedOnBlank } from '@/core/artwork/trace/again';
import { transformPath, type Affine } from '@/core/geometry/path';
import { placedOf } from '@/ui/table/usePlaced';
import { addCopies, tooManyCopies, copiesOf, drawingOf, pickedItems, replaceEach } from './artwork';
import { jobNow } from './edits';
import { tell } from './tell';

const boxOf = (items: readonly Item[]) => around(items.map((i) => itemBounds(placedOf(i))))!;

/** An item under any affine map, as a drawing that keeps its id's place in layer and group. Pictures stay as they are. */
function mapped(i: Item, m: Affine): Item {
  if (i.kind === 'picture') return i;
  const p = placedOf(i);
  return {
    ...drawingOf(
      p.paths.map((q) => transformPath(q, m)),
      i.name,
      i,
      p.fill,
      tracedOnBlank(i, m),
    ),
    id: i.id,
  };
}

/** Brings what is picked to a width and height together, about its middle. */
export function sizePicked(width: number, height: number): void {
  const items = pickedItems();
  if (!items.length) return;
  const b = boxOf(items);
  const [w, h] = [b.x1 - b.x0, b.y1 - b.y0];
  const sx = w > 1e-9 ? width / w : 1;
  const sy = h > 1e-9 ? height / h : 1;
  const [cx, cy] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  replaceEach(
    'Scale',
    items.map(
      (i) =>
        scaledItem(i, sx, sy, cx, cy) ?? mapped(i, { a: sx, b: 0, c: 0, d: sy, e: cx * (1 - sx), f: cy * (1 - sy) }),
    ),
  );
  const held = items.filter((i) => scaledItem(i, sx, sy, cx, cy) && !itemKindOf(i.kind).scales(i.values, sx, sy));
  if (held.length)
    tell(
      'info',
      `${held[0].name}${held.length > 1 ? ` and ${held.length - 1} more` : ''}: as far as it may be scaled, not as far as was asked.`,
    );
}

/** Width and height of what is picked, together. */
export function pickedSize(): { width: number; height: number; x: number; y: number } | null {
  const items = pickedItems();
  if (!items.length) return null;
  const b = boxOf(items);
  return { width: b.x1 - b.x0, height: b.y1 - b.y0, x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 };
}

export function turnPickedAbout(degrees: number, x: number, y: number): void {
  replaceEach(
    'Turn',
    pickedItems().map((i) => turnedAbout(i, degrees, x, y)),
  );
}

/** Shears what is picked about its middle; what keeps its own measures becomes a drawing. */
export function shearPicked(degrees: number, way: 'across' | 'up'): void {
  const items = pickedItems();
  const s = pickedSize();
  if (!s || !degrees) return;
  const m = shear(degrees, way, s.x, s.y);
  replaceEach(
    'Shear',
    items.map((i) => mapped(i, m)),
  );
}

/** Copies of the first picked things along the last picked one, evenly from end to end. */
export function copyAlongPicked(count: number, turn: boolean): void {
  const job = jobNow();
  const items = pickedItems();
  const line = items.pop();
  const [path] = line ? placedOf(line).paths : [];
  if (!job || !path || !items.length)
    return tell('info', 'Pick what is to be copied first, and the line to copy along last.');
  if (tooManyCopies(items.length * count)) return;
  const b = boxOf(items);
  const [cx, cy] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  addCopies(
    'Copy along a line',
    placesAlong(path, count).map((p) => {
      const c = copiesOf(items, job);
      return {
        ...c,
        items: c.items
          .map((i) => (turn ? { ...turnedAbout(i, wrap(p.angle), cx, cy) } : i))
          .map((i) => ({ ...i, x: i.x + p.x - cx, y: i.y + p.y - cy })),
      };
    }),
  );
}
