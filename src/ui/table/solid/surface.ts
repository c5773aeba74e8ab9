import * as THREE from 'three';
import { materials, type MaterialId } from '@/core/cutters/materials';
import type { HeightField } from '@/core/relief/field';

/** Vertices along the longer side of the drawn surface; normals come from the whole field. */
const MOST = 900;
const MOST_VERTICES = 300_000;

/**
 * The proof as a mesh: a coarser grid of vertices over the field, coloured by what is bare, plus the
 * blank's four sides. Where the cut goes through, there is no surface. mm, Z up.
 */
export function makeSurface(f: HeightField, width: number, height: number, thickness: number, material: MaterialId): THREE.Group {
  const group = new THREE.Group();
  const shrink = Math.max(1, Math.max(f.cols, f.rows) / MOST, Math.sqrt((f.cols * f.rows) / MOST_VERTICES));
  const nx = Math.max(2, Math.round((f.cols - 1) / shrink) + 1);
  const ny = Math.max(2, Math.round((f.rows - 1) / shrink) + 1);
  const positions = new Float32Array(nx * ny * 3);
  const normals = new Float32Array(nx * ny * 3);
  const colours = new Float32Array(nx * ny * 3);
  const m = materials[material];
  const face = new THREE.Color(m.face);
  const bare = new THREE.Color(m.cut);
  const floor = -thickness + 1e-4;
  const cols = Array.from({ length: nx }, (_, i) => Math.round((i * (f.cols - 1)) / (nx - 1)));
  const rows = Array.from({ length: ny }, (_, j) => Math.round((j * (f.rows - 1)) / (ny - 1)));
  const step = Math.max(1, Math.round(shrink / 2));
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const c = cols[i];
      const r = rows[j];
      const k = r * f.cols + c;
      const z = Math.max(f.z[k], -thickness);
      const v = 3 * (j * nx + i);
      positions[v] = i === nx - 1 ? width : f.x0 + c * f.cell;
      positions[v + 1] = j === ny - 1 ? height : f.y0 + r * f.cell;
      positions[v + 2] = z;
      const c0 = Math.max(0, c - step);
      const c1 = Math.min(f.cols - 1, c + step);
      const r0 = Math.max(0, r - step);
      const r1 = Math.min(f.rows - 1, r + step);
      const dx = (f.z[r * f.cols + c1] - f.z[r * f.cols + c0]) / ((c1 - c0) * f.cell);
      const dy = (f.z[r1 * f.cols + c] - f.z[r0 * f.cols + c]) / ((r1 - r0) * f.cell);
      const l = 1 / Math.sqrt(dx * dx + dy * dy + 1);
      normals[v] = -dx * l;
      normals[v + 1] = -dy * l;
      normals[v + 2] = l;
      // Depth is lightness: what is deeper is darker.
      const t = z < -1e-3 ? 1 : 0;
      const shade = t ? 1 - Math.min(0.62, 0.3 * Math.sqrt(-z)) : 1;
      const from = t ? bare : face;
      colours[v] = from.r * shade;
      colours[v + 1] = from.g * shade;
      colours[v + 2] = from.b * shade;
    }
  const index = new Uint32Array((nx - 1) * (ny - 1) * 6);
  let n = 0;
  const z = (i: number, j: number) => positions[3 * (j * nx + i) + 2];
  for (let j = 0; j + 1 < ny; j++)
    for (let i = 0; i + 1 < nx; i++) {
      if (z(i, j) <= floor && z(i + 1, j) <= floor && z(i, j + 1) <= floor && z(i + 1, j + 1) <= floor) continue;
      const a = j * nx + i;
      index[n++] = a;
      index[n++] = a + 1;
      index[n++] = a + nx + 1;
      index[n++] = a;
      index[n++] = a + nx + 1;
      index[n++] = a + nx;
    }
  const g = new THREE.BufferGeometry();
  g.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  g.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
  g.setAttribute('color', new THREE.BufferAttribute(colours, 3));
  g.setIndex(new THREE.BufferAttribute(index.slice(0, n), 1));
  group.add(new THREE.Mesh(g, surfaceMaterial(material)));

  // Sides: a strip along each edge, from the surface down to the underside.
  const rim: number[] = [];
  for (let i = 0; i < nx; i++) rim.push(i);
  for (let j = 1; j < ny; j++) rim.push(j * nx + nx - 1);
  for (let i = nx - 2; i >= 0; i--) rim.push((ny - 1) * nx + i);
  for (let j = ny - 2; j >= 0; j--) rim.push(j * nx);
  const side = new Float32Array(rim.length * 6);
  rim.forEach((v, k) => {
    side.set([positions[3 * v], positions[3 * v + 1], positions[3 * v + 2], positions[3 * v], positions[3 * v + 1], -thickness], 6 * k);
  });
  const quads: number[] = [];
  for (let k = 0; k + 1 < rim.length; k++) quads.push(2 * k, 2 * k + 1, 2 * k + 3, 2 * k, 2 * k + 3, 2 * k + 2);
  const s = new THREE.BufferGeometry();
  s.setAttribute('position', new THREE.BufferAttribute(side, 3));
  s.setIndex(quads);
  const flat = s.toNonIndexed();
  flat.computeVertexNormals();
  s.dispose();
  const sideColour = new THREE.Color(m.look === 'layered' ? m.cut : m.face).multiplyScalar(0.82);
  group.add(new THREE.Mesh(flat, new THREE.MeshStandardMaterial({ color: sideColour, roughness: m.look === 'metal' ? 0.38 : 0.85, metalness: m.look === 'metal' ? 0.85 : 0, side: THREE.DoubleSide })));
  return group;
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
