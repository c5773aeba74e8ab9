import * as THREE from 'three';
import { roomFaces, SIDES } from './room';

/** The room's light as three.js asks for it: a cube whose smaller pictures are what rougher faces mirror. */
export function roomTexture(): THREE.Texture {
  const levels = SIDES.map((_, level) => roomFaces(level));
  const images = levels[0].map((_, face) => ({
    width: SIDES[0],
    height: SIDES[0],
    mipmaps: levels.map((of, level) => ({ data: halves(of[face]), width: SIDES[level], height: SIDES[level] })),
  }));
  // The one kind of cube that brings its smaller pictures; they need not be compressed.
  const texture = new THREE.CompressedCubeTexture(images as never, THREE.RGBAFormat as never, THREE.HalfFloatType);
  texture.minFilter = THREE.LinearMipmapLinearFilter;
  texture.magFilter = THREE.LinearFilter;
  texture.colorSpace = THREE.LinearSRGBColorSpace;
  texture.isPMREMTexture = true;
  texture.needsUpdate = true;
  return texture;
}

/** White light, in half floats of four parts. */
function halves(light: Float32Array): Uint16Array {
  const out = new Uint16Array(4 * light.length).fill(THREE.DataUtils.toHalfFloat(1));
  light.forEach((l, i) => out.fill(THREE.DataUtils.toHalfFloat(l), 4 * i, 4 * i + 3));
  return out;
}
