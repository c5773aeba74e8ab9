import * as THREE from 'three';
import type { BodyMaterial } from '@/core/cutters/castMaterials';
import type { PaintId } from '@/core/cutters/paints';
import { flatField, type HeightField } from '@/core/relief/field';
import type { Tint } from '@/core/relief/tint';
import { Grid, nodesOf, partsOf, type Face } from './grid';
import { looksOf } from './looks';
import type { SeenPart } from './seen';
import { servesAs } from './spread';

/** Vertices along the longer side of a drawn face. */
const MOST = 900;
/** Vertices of a face: one for so many of the pixels that it is seen by, since triangles smaller than these only cost; and no more than so many. */
const A_PIXEL = 0.8;
const [LEAST_VERTICES, MOST_VERTICES] = [60_000, 300_000];
/** A web thinner than this is none, mm. */
const NOTHING = 1e-4;

/**
 * The proof as a mesh: the upper face, the four sides, and, once it is looked at from below, the lower face. Where the cut goes
 * through, there is no surface. Materials are made once: a driver compiles them but once.
 *
 *        ┌──┐    ┌─────┐   upper: heights of the proof
 *     side  └────┘      side
 *        └────┐  ┌─────┘   lower: depths of what was cut from the other face
 */
export class FieldMesh {
  readonly group = new THREE.Group();
  private readonly upper = new Grid();
  private readonly lower = new Grid();
  private readonly side = new THREE.Mesh(new THREE.BufferGeometry());
  private below = false;
  private most = MOST_VERTICES;
  /** What stands there, and what of it is looked at; null: all alike. */
  private shown: { readonly whole: Face; readonly under: HeightField | null } | null = null;
  private seen: SeenPart | null = null;
  /** The nodes that are drawn more finely for it. */
  private part: ReturnType<typeof partsOf> = { cols: null, rows: null };
  /** Fills the lower face; null when it is as it should be. */
  private fillLower: (() => void) | null = null;

  constructor() {
    this.group.add(this.upper.mesh, this.lower.mesh, this.side);
    this.lower.mesh.visible = false;
  }

  /** `under`: depths of the lower face, as the upper one is seen; null where nothing was cut into it. */
  show(
    field: HeightField,
    under: HeightField | null,
    width: number,
    height: number,
    thickness: number,
    material: BodyMaterial,
    paint: PaintId,
    tint: Tint,
    inlaid: Face['inlaid'] = null,
  ): void {
    const looks = looksOf(material);
    this.upper.mesh.material = this.lower.mesh.material = looks.face;
    this.side.material = looks.side;
    this.shown = { under, whole: { field, under: false, width, height, thickness, material, paint, tint, inlaid } };
    this.fill();
  }

  /** It is seen by so many pixels. */
  seenBy(pixels: number): void {
    const most = Math.round(Math.min(MOST_VERTICES, Math.max(LEAST_VERTICES, A_PIXEL * pixels)));
    // While a view is made wider step by step, not at every step.
    if (Math.abs(most / this.most - 1) < 0.2) return;
    this.most = most;
    if (this.shown) this.fill();
  }

  /** Draws more finely what is seen of it; says whether anything is drawn otherwise than before. */
  closer(seen: SeenPart): boolean {
    if (!this.shown) return false;
    const { cols, rows } = partsOf(this.shown.whole.field, seen);
    if (servesAs(this.part.cols, cols) && servesAs(this.part.rows, rows)) return false;
    this.seen = seen;
    this.fill();
    return true;
  }

  private fill(): void {
    const { whole, under } = this.shown!;
    const { field, width, height, thickness } = whole;
    const shrink = Math.max(
      1,
      Math.max(field.cols, field.rows) / MOST,
      Math.sqrt((field.cols * field.rows) / this.most),
    );
    const nx = Math.max(2, Math.round((field.cols - 1) / shrink) + 1);
    const ny = Math.max(2, Math.round((field.rows - 1) / shrink) + 1);
    const [up, down] = [nodesOf(nx, ny, field, this.seen), under && nodesOf(nx, ny, under, this.seen)];
    this.part = partsOf(field, this.seen);
    const depthUnder = (v: number): number =>
      under && down ? under.z[down.rows[Math.floor(v / nx)] * under.cols + down.cols[v % nx]] : 0;
    const open = (v: number): boolean =>
      thickness + field.z[up.rows[Math.floor(v / nx)] * field.cols + up.cols[v % nx]] + depthUnder(v) > NOTHING;
    this.upper.fill(up, whole, open);
    this.fillSides(nx, ny, (v) => -thickness - Math.max(depthUnder(v), -thickness));
    const lowest = under ?? flatField(width, height, Math.max(width, height) / 60);
    this.fillLower = () =>
      this.lower.fill(
        nodesOf(nx, ny, lowest, under && this.seen),
        { ...whole, inlaid: null, field: lowest, under: true },
        open,
      );
    this.seenFrom(this.below);
  }

  /** The face that looks away is drawn only where one can look through the blank. */
  seenFrom(below: boolean): void {
    this.below = below;
    if (below && this.fillLower) {
      this.fillLower();
      this.fillLower = null;
    }
    this.lower.mesh.visible = below;
    this.upper.mesh.visible = !below || !this.upper.closed;
  }

  /** Draws every vertex, or a draft of every third. */
  detail(draft: boolean): void {
    this.upper.detail(draft);
    this.lower.detail(draft);
  }

  /** A strip along each edge, from the upper face down to the lower one. */
  private fillSides(nx: number, ny: number, floor: (v: number) => number): void {
    const { positions } = this.upper;
    const rim: number[] = [];
    for (let i = 0; i < nx; i++) rim.push(i);
    for (let j = 1; j < ny; j++) rim.push(j * nx + nx - 1);
    for (let i = nx - 2; i >= 0; i--) rim.push((ny - 1) * nx + i);
    for (let j = ny - 2; j >= 0; j--) rim.push(j * nx);
    const side = new Float32Array(rim.length * 6);
    rim.forEach((v, k) => {
      const [x, y, z] = [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
      side.set([x, y, z, x, y, Math.min(z, floor(v))], 6 * k);
    });
    const quads: number[] = [];
    for (let k = 0; k + 1 < rim.length; k++) quads.push(2 * k, 2 * k + 1, 2 * k + 3, 2 * k, 2 * k + 3, 2 * k + 2);
    const s = new THREE.BufferGeometry();
    s.setAttribute('position', new THREE.BufferAttribute(side, 3));
    s.setIndex(quads);
    this.side.geometry.dispose();
    this.side.geometry = s.toNonIndexed();
    this.side.geometry.computeVertexNormals();
    s.dispose();
  }
}

export function disposeGroup(group: THREE.Object3D): void {
  group.traverse((o) => {
    if (o instanceof THREE.Mesh) {
      o.geometry.dispose();
      (o.material as THREE.Material).dispose();
    }
  });
}
