import { Primitive, WebIO, type JSONDocument, type Node } from '@gltf-transform/core';
import { ExchangeError } from '../drawn';
import type { Mesh } from '../../relief/mesh';
import { MOST_TRIANGLES, tooManyTriangles } from './words';

/** Lengths of the standard are metres, and Y looks up. */
const METRE = 1000;

/**
 * Reads the meshes of a glTF 2.0 file, .glb or .gltf with all that it needs inside, in mm with Z up, as its first scene shows them.
 * Looks, movements and cameras say nothing about heights. Throws ExchangeError.
 */
export async function readGltf(name: string, bytes: Uint8Array): Promise<Mesh> {
  const io = new WebIO();
  try {
    const packed = bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;
    const document = packed ? await io.binaryToJSON(bytes as Uint8Array<ArrayBuffer>) : jsonOf(bytes);
    lookedAt(name, document, packed);
    const scene = (await io.readJSON(document)).getRoot();
    const shown = scene.getDefaultScene() ?? scene.listScenes()[0];
    const out: number[] = [];
    shown?.traverse((node) => addNode(name, node, out));
    return { corners: Float32Array.from(out) };
  } catch (e) {
    if (e instanceof ExchangeError) throw e;
    throw new ExchangeError(name, 'it is damaged, or no glTF 2.0 file. Export it again.');
  }
}

const jsonOf = (bytes: Uint8Array): JSONDocument => ({
  json: JSON.parse(new TextDecoder().decode(bytes)) as JSONDocument['json'],
  resources: {},
});

/** Of the standard's kinds of numbers, and lists of them. */
const BYTES: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const NUMBERS: Readonly<Record<string, number>> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };

/** Refuses what cannot be read before anything is made of it, and leaves out what is not asked for. */
function lookedAt(name: string, { json }: JSONDocument, packed: boolean): void {
  const packs = (json.extensionsRequired ?? []).filter(
    (e) => !/^KHR_(materials|texture|lights|mesh_quantization)/.test(e),
  );
  if (packs.length)
    throw new ExchangeError(
      name,
      `its meshes are packed by "${String(packs[0]).slice(0, 40)}". Export it without compression.`,
    );
  json.buffers?.forEach((b, k) => {
    if (b.uri === undefined ? !(packed && k === 0) : !b.uri.startsWith('data:'))
      throw new ExchangeError(
        name,
        `its numbers lie in another file${b.uri ? `, "${b.uri.slice(0, 60)}"` : ''}. Export it as one file, .glb.`,
      );
  });
  const numbers = json.accessors?.reduce((n, a) => n + (Number(a.count) || 0), 0) ?? 0;
  if (numbers > 8 * MOST_TRIANGLES) throw tooManyTriangles(name, numbers / 3);
  json.accessors?.forEach(({ bufferView, count, byteOffset = 0, componentType, type }, k) => {
    const view = bufferView === undefined ? null : json.bufferViews?.[bufferView];
    if (view === null) return;
    const each = (BYTES[componentType] ?? NaN) * (NUMBERS[type] ?? NaN);
    if (!view || !(byteOffset + (count - 1) * (view.byteStride ?? each) + each <= view.byteLength))
      throw new ExchangeError(
        name,
        `it is cut off: list ${k + 1} of its numbers ends before all of them. Save it again.`,
      );
  });
  for (const k of ['images', 'textures', 'samplers', 'materials', 'animations', 'skins', 'cameras'] as const)
    delete json[k];
  delete json.extensionsRequired;
  for (const m of json.meshes ?? []) for (const p of m.primitives) delete p.material;
  for (const n of json.nodes ?? []) {
    delete n.skin;
    delete n.camera;
  }
}

const { TRIANGLES, TRIANGLE_STRIP, TRIANGLE_FAN } = Primitive.Mode;

function addNode(name: string, node: Node, out: number[]): void {
  const m = node.getWorldMatrix();
  const p: number[] = [];
  for (const part of node.getMesh()?.listPrimitives() ?? []) {
    const places = part.getAttribute('POSITION');
    const mode = part.getMode();
    if (!places || (mode !== TRIANGLES && mode !== TRIANGLE_STRIP && mode !== TRIANGLE_FAN)) continue;
    const order = part.getIndices();
    const count = order ? order.getCount() : places.getCount();
    const corner = (k: number): void => {
      const i = order ? order.getScalar(k) : k;
      if (i >= places.getCount())
        throw new ExchangeError(name, 'a triangle names a corner that is not there. Export it again.');
      places.getElement(i, p);
      const at = (r: number) => METRE * (m[r] * p[0] + m[4 + r] * p[1] + m[8 + r] * p[2] + m[12 + r]);
      // Y up to Z up.
      const [x, y, z] = [at(0), 0 - at(2), at(1)];
      if (!Number.isFinite(x + y + z))
        throw new ExchangeError(name, `corner ${k + 1} is no number. Repair it where it was made.`);
      out.push(x, y, z);
    };
    for (let k = 2; k < count; k += mode === TRIANGLES ? 3 : 1) {
      corner(mode === TRIANGLE_FAN ? 0 : k - 2);
      corner(k - 1);
      corner(k);
    }
    if (out.length > 9 * MOST_TRIANGLES) throw tooManyTriangles(name, out.length / 9);
  }
}
