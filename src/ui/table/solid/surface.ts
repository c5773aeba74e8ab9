import * as THREE from 'three';
import { materials, type MaterialId } from '@/core/cutters/materials';
import type { HeightField } from '@/core/relief/field';

/** Vertices along the longer side of the drawn surface; normals come from the whole field. */
const MOST = 900;
const MOST_VERTICES = 300_000;
/** A draft takes every so-manieth vertex of a row. */
const DRAFT = 3;

/**
 * The proof as a mesh: a coarser grid of vertices over the field, coloured by what is bare, plus the blank's
 * four sides. Where the cut goes through, there is no surface. mm, Z up. A new proof of the same blank
 * goes into the buffers of the one before, and materials are made once: a driver compiles them but once.
 */
export class Surface {
  readonly group = new THREE.Group();
  private size = '';
  private nx = 0;
  private ny = 0;
  private fine = new THREE.BufferAttribute(new Uint32Array(0), 1);
  private draft = this.fine;
  private whole = 0;
  private part = 0;
  private drafted = false;
  private readonly top = new THREE.Mesh(new THREE.BufferGeometry());
  private readonly side = new THREE.Mesh(new THREE.BufferGeometry());

  constructor() {
    this.group.add(this.top, this.side);
  }

  show(f: HeightField, width: number, height: number, thickness: number, material: MaterialId): void {
    const shrink = Math.max(1, Math.max(f.cols, f.rows) / MOST, Math.sqrt((f.cols * f.rows) / MOST_VERTICES));
    const nx = Math.max(2, Math.round((f.cols - 1) / shrink) + 1);
    const ny = Math.max(2, Math.round((f.rows - 1) / shrink) + 1);
    if (this.size !== `${nx} ${ny}`) {
      this.size = `${nx} ${ny}`;
      this.nx = nx;
      this.ny = ny;
      this.top.geometry.dispose();
      this.top.geometry = new THREE.BufferGeometry();
      this.top.geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(nx * ny * 3), 3));
      this.top.geometry.setAttribute('normal', new THREE.BufferAttribute(new Int8Array(nx * ny * 4), 4, true));
      this.top.geometry.setAttribute('color', new THREE.BufferAttribute(new Uint16Array(nx * ny * 4), 4, true));
      const room = (stride: number) => new THREE.BufferAttribute(new Uint32Array((Math.ceil(nx / stride) + 1) * (Math.ceil(ny / stride) + 1) * 6), 1);
      this.fine = room(1);
      this.draft = room(DRAFT);
    }
    const looks = looksOf(material);
    this.top.material = looks.face;
    this.side.material = looks.side;
    this.fill(f, width, height, thickness, material, Math.max(1, Math.round(shrink / 2)));
    this.fillSides(thickness);
    this.top.geometry.boundingSphere = new THREE.Sphere(new THREE.Vector3(width / 2, height / 2, -thickness / 2), Math.hypot(width, height, thickness) / 2 + 1);
  }

  private fill(f: HeightField, width: number, height: number, thickness: number, material: MaterialId, step: number): void {
    const { nx, ny } = this;
    const g = this.top.geometry;
    const positions = g.attributes.position.array as Float32Array;
    const normals = g.attributes.normal.array as Int8Array;
    const colours = g.attributes.color.array as Uint16Array;
    const m = materials[material];
    const face = new THREE.Color(m.face);
    const bare = new THREE.Color(m.cut);
    const floor = -thickness + 1e-4;
    const cols = Array.from({ length: nx }, (_, i) => Math.round((i * (f.cols - 1)) / (nx - 1)));
    const rows = Array.from({ length: ny }, (_, j) => Math.round((j * (f.rows - 1)) / (ny - 1)));
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const c = cols[i];
        const r = rows[j];
        const z = Math.max(f.z[r * f.cols + c], -thickness);
        const v = j * nx + i;
        positions[3 * v] = i === nx - 1 ? width : f.x0 + c * f.cell;
        positions[3 * v + 1] = j === ny - 1 ? height : f.y0 + r * f.cell;
        positions[3 * v + 2] = z;
        const c0 = Math.max(0, c - step);
        const c1 = Math.min(f.cols - 1, c + step);
        const r0 = Math.max(0, r - step);
        const r1 = Math.min(f.rows - 1, r + step);
        const dx = (f.z[r * f.cols + c1] - f.z[r * f.cols + c0]) / ((c1 - c0) * f.cell);
        const dy = (f.z[r1 * f.cols + c] - f.z[r0 * f.cols + c]) / ((r1 - r0) * f.cell);
        const l = 127 / Math.sqrt(dx * dx + dy * dy + 1);
        normals[4 * v] = Math.round(-dx * l);
        normals[4 * v + 1] = Math.round(-dy * l);
        normals[4 * v + 2] = Math.round(l);
        // Depth is lightness: what is deeper is darker.
        const t = z < -1e-3;
        const shade = 65535 * (t ? 1 - Math.min(0.62, 0.3 * Math.sqrt(-z)) : 1);
        const from = t ? bare : face;
        colours[4 * v] = from.r * shade;
        colours[4 * v + 1] = from.g * shade;
        colours[4 * v + 2] = from.b * shade;
        colours[4 * v + 3] = 65535;
      }
    for (const name of ['position', 'normal', 'color']) g.attributes[name].needsUpdate = true;
    const open = (v: number) => positions[3 * v + 2] > floor;
    this.whole = fillIndex(this.fine, nx, ny, 1, open);
    this.part = fillIndex(this.draft, nx, ny, DRAFT, open);
    this.detail(this.drafted);
  }

  /** Draws every vertex, or a draft of every third. */
  detail(draft: boolean): void {
    this.drafted = draft;
    this.top.geometry.setIndex(draft ? this.draft : this.fine);
    this.top.geometry.setDrawRange(0, draft ? this.part : this.whole);
  }

  /** A strip along each edge, from the surface down to the underside. */
  private fillSides(thickness: number): void {
    const { nx, ny } = this;
    const positions = this.top.geometry.attributes.position.array;
    const rim: number[] = [];
    for (let i = 0; i < nx; i++) rim.push(i);
    for (let j = 1; j < ny; j++) rim.push(j * nx + nx - 1);
    for (let i = nx - 2; i >= 0; i--) rim.push((ny - 1) * nx + i);
    for (let j = ny - 2; j >= 0; j--) rim.push(j * nx);
    const side = new Float32Array(rim.length * 6);
    rim.forEach((v, k) => side.set([positions[3 * v], positions[3 * v + 1], positions[3 * v + 2], positions[3 * v], positions[3 * v + 1], -thickness], 6 * k));
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

/** Two triangles for every square of vertices `stride` apart that is not cut through; returns how many indices. */
function fillIndex(into: THREE.BufferAttribute, nx: number, ny: number, stride: number, open: (v: number) => boolean): number {
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

const madeLooks = new Map<MaterialId, { face: THREE.Material; side: THREE.Material }>();
function looksOf(material: MaterialId): { face: THREE.Material; side: THREE.Material } {
  let looks = madeLooks.get(material);
  if (!looks) {
    const m = materials[material];
    const metal = m.look === 'metal';
    const color = new THREE.Color(m.look === 'layered' ? m.cut : m.face).multiplyScalar(0.82);
    looks = { face: surfaceMaterial(material), side: new THREE.MeshStandardMaterial({ color, roughness: metal ? 0.38 : 0.85, metalness: metal ? 0.85 : 0, side: THREE.DoubleSide }) };
    madeLooks.set(material, looks);
  }
  return looks;
}

/** The material's look; wood gets a grain that runs along X and through the depth, brass and aluminium a brushed face. */
function surfaceMaterial(material: MaterialId): THREE.MeshStandardMaterial {
  const m = materials[material];
  const metal = m.look === 'metal';
  const out = new THREE.MeshStandardMaterial({ vertexColors: true, roughness: metal ? 0.36 : m.look === 'layered' ? 0.5 : 0.78, metalness: metal ? 0.88 : 0, side: THREE.DoubleSide });
  if (m.look !== 'wood' && !metal) return out;
  out.onBeforeCompile = (shader) => {
    shader.vertexShader = shader.vertexShader.replace('#include <common>', '#include <common>\nvarying vec3 vBlank;').replace('#include <begin_vertex>', '#include <begin_vertex>\nvBlank = position;');
    const grain = metal
      ? 'float b = hash(vec2(floor(vBlank.y * 24.0), 1.0)) * 0.6 + hash(vec2(floor(vBlank.y * 61.0), 2.0)) * 0.4;\nroughnessFactor *= 0.82 + 0.36 * b;'
      : '';
    const wood = metal
      ? ''
      : `float wx = vBlank.x * 0.012;
        float bend = noise(vec2(wx * 1.3, vBlank.y * 0.03)) * 9.0 + noise(vec2(wx * 0.4, 3.0)) * 16.0;
        float ring = vBlank.y * 0.55 + bend + vBlank.z * 0.5;
        float band = 0.5 + 0.5 * sin(ring * 1.25);
        float fibre = noise(vec2(vBlank.x * 0.16, vBlank.y * 7.0 + vBlank.z * 3.0));
        float pore = smoothstep(0.72, 0.95, noise(vec2(vBlank.x * 0.11 + 40.0, vBlank.y * 11.0)));
        diffuseColor.rgb *= 0.9 + 0.1 * band + 0.1 * (fibre - 0.5);
        diffuseColor.rgb *= 1.0 - 0.2 * pore;`;
    shader.fragmentShader = shader.fragmentShader
      .replace(
        '#include <common>',
        `#include <common>
        varying vec3 vBlank;
        float hash(vec2 p) { return fract(sin(dot(p, vec2(127.1, 311.7))) * 43758.5453); }
        float noise(vec2 p) {
          vec2 i = floor(p); vec2 f = fract(p); f = f * f * (3.0 - 2.0 * f);
          return mix(mix(hash(i), hash(i + vec2(1.0, 0.0)), f.x), mix(hash(i + vec2(0.0, 1.0)), hash(i + vec2(1.0, 1.0)), f.x), f.y);
        }`,
      )
      .replace('#include <color_fragment>', `#include <color_fragment>\n${wood}`)
      .replace('#include <roughnessmap_fragment>', `#include <roughnessmap_fragment>\n${grain}`);
  };
  return out;
}

export function disposeGroup(group: THREE.Object3D): void {
  group.traverse((o) => {
    if (o instanceof THREE.Mesh) {
      o.geometry.dispose();
      (o.material as THREE.Material).dispose();
    }
  });
}
