import * as THREE from 'three';
import { lookOf, type BodyMaterial } from '@/core/cutters/castMaterials';
import { paintedShare, paints, type PaintId } from '@/core/cutters/paints';
import type { HeightField } from '@/core/relief/field';
import { colourAt, tinting, type Tint } from '@/core/relief/tint';
import type { SeenPart } from './seen';
import { partOf, spread } from './spread';

/** Colours of a tint. */
const TINTS = 256;
const srgb = ([r, g, b]: readonly [number, number, number]): THREE.Color =>
  new THREE.Color().setRGB(r / 255, g / 255, b / 255, THREE.SRGBColorSpace);

/** Oil makes a colour deeper and warmer. */
function oiled(c: THREE.Color): void {
  c.setRGB(c.r ** 1.08, c.g ** 1.14, c.b ** 1.22);
}

/** A draft takes every so-manieth vertex of a row. */
const DRAFT = 3;

/** Which vertices of a drawn grid stand at which nodes of a field. */
export interface Nodes {
  readonly cols: readonly number[];
  readonly rows: readonly number[];
}
/** Which nodes of a field are looked at closely, across and along. */
export const partsOf = (f: HeightField, seen: SeenPart | null) => ({
  cols: partOf(seen && { from: seen.x0, to: seen.x1 }, f.x0, f.cell, f.cols),
  rows: partOf(seen && { from: seen.y0, to: seen.y1 }, f.y0, f.cell, f.rows),
});
/** Vertices lie closer together where the field is looked at. */
export function nodesOf(nx: number, ny: number, f: HeightField, seen: SeenPart | null): Nodes {
  const { cols, rows } = partsOf(f, seen);
  return { cols: spread(nx, f.cols, cols), rows: spread(ny, f.rows, rows) };
}
/** How many nodes to either side a normal looks at: half way to the next vertex. */
const beside = (at: readonly number[]): number[] =>
  at.map((_, i) => Math.max(1, Math.round((at[Math.min(at.length - 1, i + 1)] - at[Math.max(0, i - 1)]) / 4)));

export interface Face {
  readonly field: HeightField;
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  readonly material: BodyMaterial;
  /** The face that lies down: heights of its field are depths from the underside. */
  readonly under: boolean;
  readonly paint: PaintId;
  readonly tint: Tint;
  /** What is let into it: of each node how much is of that, 0 to 255, and what it is. Both are oiled. */
  readonly inlaid?: readonly { readonly share: Uint8Array; readonly material: BodyMaterial }[] | null;
}

/**
 * One face of the blank as a mesh: a coarser grid of vertices over a field, coloured by what is bare; normals come from the
 * whole field. A new field of the same size goes into the buffers of the one before. mm, Z up.
 */
export class Grid {
  readonly mesh = new THREE.Mesh(new THREE.BufferGeometry());
  private nx = 0;
  private ny = 0;
  private fine = new THREE.BufferAttribute(new Uint32Array(0), 1);
  private draft = this.fine;
  private whole = 0;
  private part = 0;
  private drafted = false;

  get positions(): ArrayLike<number> {
    return this.mesh.geometry.attributes.position.array;
  }
  /** Whether no square of it is left out. */
  get closed(): boolean {
    return this.whole === (this.nx - 1) * (this.ny - 1) * 6;
  }

  private size(nx: number, ny: number): void {
    if (this.nx === nx && this.ny === ny) return;
    [this.nx, this.ny] = [nx, ny];
    this.mesh.geometry.dispose();
    const g = (this.mesh.geometry = new THREE.BufferGeometry());
    g.setAttribute('position', new THREE.BufferAttribute(new Float32Array(nx * ny * 3), 3));
    g.setAttribute('normal', new THREE.BufferAttribute(new Int8Array(nx * ny * 4), 4, true));
    g.setAttribute('color', new THREE.BufferAttribute(new Uint16Array(nx * ny * 4), 4, true));
    const room = (stride: number) =>
      new THREE.BufferAttribute(new Uint32Array((Math.ceil(nx / stride) + 1) * (Math.ceil(ny / stride) + 1) * 6), 1);
    this.fine = room(1);
    this.draft = room(DRAFT);
  }

  /** Fills vertices at these nodes; `open`: those at which something is left. */
  fill({ cols, rows }: Nodes, face: Face, open: (v: number) => boolean): void {
    const [nx, ny] = [cols.length, rows.length];
    this.size(nx, ny);
    const { field: f, width, height, thickness, under } = face;
    const g = this.mesh.geometry;
    const positions = g.attributes.position.array as Float32Array;
    const normals = g.attributes.normal.array as Int8Array;
    const colours = g.attributes.color.array as Uint16Array;
    const m = lookOf(face.material);
    const { inlaid } = face;
    const [uncut, bare] = [new THREE.Color(m.face), new THREE.Color(m.cut)];
    const seconds = inlaid?.map((q) => ({ share: q.share, colour: new THREE.Color(lookOf(q.material).face) })) ?? [];
    if (seconds.length) [uncut, bare, ...seconds.map((q) => q.colour)].forEach(oiled);
    const [across, along] = [beside(cols), beside(rows)];
    const tint = under || face.tint === 'material' ? null : face.tint;
    const of = tint && tinting(f, tint);
    const ramp = tint && Array.from({ length: TINTS }, (_, k) => srgb(colourAt(tint, k / (TINTS - 1))));
    const colour = paints[face.paint].colour;
    const paint = colour === null || ramp ? null : new THREE.Color(colour);
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const c = cols[i];
        const r = rows[j];
        const depth = Math.max(f.z[r * f.cols + c], -thickness);
        const v = j * nx + i;
        positions[3 * v] = i === nx - 1 ? width : f.x0 + c * f.cell;
        positions[3 * v + 1] = j === ny - 1 ? height : f.y0 + r * f.cell;
        positions[3 * v + 2] = under ? -thickness - depth : depth;
        const c0 = Math.max(0, c - across[i]);
        const c1 = Math.min(f.cols - 1, c + across[i]);
        const r0 = Math.max(0, r - along[j]);
        const r1 = Math.min(f.rows - 1, r + along[j]);
        const dx = (f.z[r * f.cols + c1] - f.z[r * f.cols + c0]) / ((c1 - c0) * f.cell);
        const dy = (f.z[r1 * f.cols + c] - f.z[r0 * f.cols + c]) / ((r1 - r0) * f.cell);
        const l = 127 / Math.sqrt(dx * dx + dy * dy + 1);
        normals[4 * v] = Math.round(-dx * l);
        normals[4 * v + 1] = Math.round(-dy * l);
        // The lower face is the mirror image of its depths: its normals look down.
        normals[4 * v + 2] = Math.round(under ? -l : l);
        if (paint) {
          // Grooves are finer than what is drawn: of each place the share that is painted counts.
          const share = paintedShare(f, c0, c1, r0, r1);
          for (const [k, q] of (['r', 'g', 'b'] as const).entries())
            colours[4 * v + k] = 65535 * (uncut[q] + (paint[q] - uncut[q]) * share);
          // Where there is paint neither grain nor metal is seen.
          colours[4 * v + 3] = 65535 * (1 - share);
          continue;
        }
        if (seconds.length) {
          const own = depth < -1e-3 ? bare : uncut;
          const dark = 65535 * (depth < -1e-3 ? 1 - Math.min(0.62, 0.3 * Math.sqrt(-depth)) : 1);
          for (const [k, q] of (['r', 'g', 'b'] as const).entries())
            colours[4 * v + k] =
              dark *
              seconds.reduce(
                (s, { share, colour }) => s + ((colour[q] - own[q]) * share[r * f.cols + c]) / 255,
                own[q],
              );
          colours[4 * v + 3] = 65535;
          continue;
        }
        // Depth is lightness: what is deeper is darker.
        const t = depth < -1e-3;
        const shade = 65535 * (t ? 1 - Math.min(0.62, 0.3 * Math.sqrt(-depth)) : 1);
        const from = ramp ? ramp[Math.round((TINTS - 1) * (of!(c, r) || 0))] : t ? bare : uncut;
        const much = ramp ? 65535 : shade;
        colours[4 * v] = from.r * much;
        colours[4 * v + 1] = from.g * much;
        colours[4 * v + 2] = from.b * much;
        colours[4 * v + 3] = 65535;
      }
    for (const name of ['position', 'normal', 'color']) g.attributes[name].needsUpdate = true;
    this.whole = fillIndex(this.fine, nx, ny, 1, open);
    this.part = fillIndex(this.draft, nx, ny, DRAFT, open);
    this.detail(this.drafted);
    g.boundingSphere = new THREE.Sphere(
      new THREE.Vector3(width / 2, height / 2, -thickness / 2),
      Math.hypot(width, height, thickness) / 2 + 1,
    );
  }

  /** Draws every vertex, or a draft of every third. */
  detail(draft: boolean): void {
    this.drafted = draft;
    this.mesh.geometry.setIndex(draft ? this.draft : this.fine);
    this.mesh.geometry.setDrawRange(0, draft ? this.part : this.whole);
  }
}

/** Two triangles for every square of vertices `stride` apart that is not cut through; returns how many indices. */
function fillIndex(
  into: THREE.BufferAttribute,
  nx: number,
  ny: number,
  stride: number,
  open: (v: number) => boolean,
): number {
  const index = into.array as Uint32Array;
  let n = 0;
  let changed = false;
  const put = (v: number) => {
    if (index[n] !== v) {
      index[n] = v;
      changed = true;
    }
    n++;
  };
  for (let j = 0; j + 1 < ny; j += stride) {
    const up = (Math.min(ny - 1, j + stride) - j) * nx;
    for (let i = 0; i + 1 < nx; i += stride) {
      const a = j * nx + i;
      const b = j * nx + Math.min(nx - 1, i + stride);
      if (!open(a) && !open(b) && !open(a + up) && !open(b + up)) continue;
      put(a);
      put(b);
      put(b + up);
      put(a);
      put(b + up);
      put(a + up);
    }
  }
  if (changed) into.needsUpdate = true;
  return n;
}
