import { materials, type Material, type MaterialId } from './materials';

/**
 * What is poured or pressed into moulds: how it looks, its density and by how much it shrinks from the mould to cold. Densities of
 * tables of materials; of metals the usual patternmaker's allowances, as tabulated in Machinery's Handbook, of the others what
 * their makers commonly state.
 */
export const castIds = [
  'castTin',
  'castAluminium',
  'castBrass',
  'castBronze',
  'castSilver',
  'castResin',
  'castWax',
  'castPlaster',
  'castRubber',
] as const;
export type CastId = (typeof castIds)[number];

export interface CastMaterial extends Pick<Material, 'name' | 'look' | 'face' | 'cut'> {
  /** g/cm3. */
  readonly density: number;
  /** Linear, percent. */
  readonly shrinks: number;
}

const metal = (name: string, face: string, cut: string, density: number, shrinks: number): CastMaterial => ({
  ...{ name, look: 'metal', face, cut, density, shrinks },
});
const other = (name: string, face: string, cut: string, density: number, shrinks: number): CastMaterial => ({
  ...{ name, look: 'board', face, cut, density, shrinks },
});

export const castMaterials: Readonly<Record<CastId, CastMaterial>> = {
  castTin: metal('Tin, lead-free', '#c3c4c0', '#b3b4b0', 7.3, 0.7),
  castAluminium: metal('Aluminium, cast', '#b9bec2', '#aab0b4', 2.68, 1.3),
  castBrass: metal('Brass, cast', '#c59a4a', '#b98f42', 8.5, 1.6),
  castBronze: metal('Bronze, cast', '#b07f4c', '#a17243', 8.8, 1.6),
  castSilver: metal('Silver, cast', '#d6d5cf', '#c6c5bf', 10.4, 1.7),
  castResin: other('Resin', '#e3dcc8', '#d8d0ba', 1.15, 0.3),
  castWax: other('Wax', '#a8443a', '#9b3c33', 0.93, 1.5),
  castPlaster: other('Plaster', '#efece4', '#e6e2d8', 1.3, 0),
  castRubber: other('Silicone rubber', '#c9ced1', '#bcc2c6', 1.12, 0.3),
};

/** Of what a body that is shown may be. */
export type BodyMaterial = MaterialId | CastId;
type Look = Pick<Material, 'name' | 'look' | 'face' | 'cut'>;
const looks: Readonly<Record<BodyMaterial, Look>> = { ...materials, ...castMaterials };
export const lookOf = (material: BodyMaterial): Look => looks[material];
