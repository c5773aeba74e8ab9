import * as THREE from 'three';
import { lookOf, type BodyMaterial } from '@/core/cutters/castMaterials';

const madeLooks = new Map<BodyMaterial, { face: THREE.Material; side: THREE.Material }>();
/** How a material looks: a face with its grain or brushing, and the sides. */
export function looksOf(material: BodyMaterial): { face: THREE.Material; side: THREE.Material } {
  let looks = madeLooks.get(material);
  if (!looks) {
    const m = lookOf(material);
    const metal = m.look === 'metal';
    const color = new THREE.Color(m.look === 'layered' ? m.cut : m.face).multiplyScalar(0.82);
    looks = {
      face: surfaceMaterial(material),
      side: new THREE.MeshStandardMaterial({
        color,
        roughness: metal ? 0.38 : 0.85,
        metalness: metal ? 0.85 : 0,
        side: THREE.DoubleSide,
      }),
    };
    madeLooks.set(material, looks);
  }
  return looks;
}

/**
 * Upright walls are drawn of vertices that lie apart: whether one just above a wall knows of it is chance, so light would fall on the
 * wall in stripes. There the normals of the corners say which way the wall faces, and the face itself that it is upright.
 *
 *       up   across         a face that is steep is lit by what is
 *       ^ \_   <---         across of the normals of its corners
 *     --+   \----+
 */
function wallsLit(shader: { vertexShader: string; fragmentShader: string }): void {
  shader.vertexShader = shader.vertexShader
    .replace('#include <common>', '#include <common>\nvarying vec3 vBlank;\nvarying vec3 vUp;')
    .replace(
      '#include <begin_vertex>',
      '#include <begin_vertex>\nvBlank = position;\nvUp = normalMatrix * vec3(0.0, 0.0, 1.0);',
    );
  shader.fragmentShader = shader.fragmentShader
    .replace('#include <common>', '#include <common>\nvarying vec3 vBlank;\nvarying vec3 vUp;')
    .replace(
      '#include <normal_fragment_begin>',
      `#include <normal_fragment_begin>
        float upright = 1.0 - smoothstep(0.15, 0.4, abs(normalize(cross(dFdx(vBlank), dFdy(vBlank))).z));
        vec3 up = normalize(vUp);
        vec3 facing = normalize(cross(dFdx(vViewPosition), dFdy(vViewPosition)));
        vec3 sideways = normal - dot(normal, up) * up + 0.06 * (facing - dot(facing, up) * up);
        if (dot(sideways, sideways) > 1e-6) normal = normalize(mix(normal, normalize(sideways), upright));`,
    );
}

/** The material's look; wood gets a grain that runs along X and through the depth, brass and aluminium a brushed face. */
function surfaceMaterial(material: BodyMaterial): THREE.MeshStandardMaterial {
  const m = lookOf(material);
  const metal = m.look === 'metal';
  const out = new THREE.MeshStandardMaterial({
    vertexColors: true,
    roughness: metal ? 0.36 : m.look === 'layered' ? 0.5 : 0.78,
    metalness: metal ? 0.88 : 0,
    side: THREE.DoubleSide,
  });
  // Programs are told apart by the text of what follows, which is the same for all.
  out.customProgramCacheKey = () => m.look;
  out.onBeforeCompile = (shader) => {
    wallsLit(shader);
    if (m.look !== 'wood' && !metal) return;
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
        vec3 grown = vec3(0.9 + 0.1 * band + 0.1 * (fibre - 0.5)) * (1.0 - 0.2 * pore);
        diffuseColor.rgb *= mix(vec3(1.0), grown, vColor.a);`;
    shader.fragmentShader = shader.fragmentShader
      .replace(
        '#include <common>',
        `#include <common>
        float hash(vec2 p) { return fract(sin(dot(p, vec2(127.1, 311.7))) * 43758.5453); }
        float noise(vec2 p) {
          vec2 i = floor(p); vec2 f = fract(p); f = f * f * (3.0 - 2.0 * f);
          return mix(mix(hash(i), hash(i + vec2(1.0, 0.0)), f.x), mix(hash(i + vec2(0.0, 1.0)), hash(i + vec2(1.0, 1.0)), f.x), f.y);
        }`,
      )
      .replace('#include <color_fragment>', `#include <color_fragment>\n${wood}`)
      .replace(
        '#include <roughnessmap_fragment>',
        `#include <roughnessmap_fragment>\n${grain}\nroughnessFactor = mix(0.8, roughnessFactor, vColor.a);`,
      )
      .replace('#include <metalnessmap_fragment>', '#include <metalnessmap_fragment>\nmetalnessFactor *= vColor.a;');
  };
  return out;
}
