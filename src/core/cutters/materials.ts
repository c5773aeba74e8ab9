/**
 * Materials of the blank: how they are cut and how they look. Surface speeds (m/min, carbide) and chip
 * loads (as a share of cutter diameter, mm per tooth) are mid-range values of general machining
 * practice, as tabulated for each class of material in Machinery's Handbook (speeds and feeds).
 */
export const materialIds = [
  'oak',
  'walnut',
  'maple',
  'cedar',
  'mdf',
  'paintedBoard',
  'brass',
  'aluminium',
  'anodisedAluminium',
  'laminate',
] as const;
export type MaterialId = (typeof materialIds)[number];

export interface Material {
  readonly name: string;
  readonly look: 'wood' | 'board' | 'metal' | 'layered';
  /** sRGB of the face, and of what a cut lays bare. */
  readonly face: string;
  readonly cut: string;
  /** Surface speed, m/min. */
  readonly surfaceSpeed: number;
  /** Chip load per tooth as a share of the diameter. */
  readonly chip: number;
  /** Step-down as a share of the diameter for an end mill. */
  readonly stepDown: number;
  /** Hardness against a drawn point, N/mm2: Vickers' of the metals, Brinell's of the woods, from tables of materials. */
  readonly scratchHardness: number;
}

export const materials: Record<MaterialId, Material> = {
  oak: {
    name: 'Oak',
    look: 'wood',
    face: '#c99a5b',
    cut: '#d3ab72',
    surfaceSpeed: 300,
    chip: 0.011,
    stepDown: 0.5,
    scratchHardness: 40,
  },
  walnut: {
    name: 'Walnut',
    look: 'wood',
    face: '#6b4a33',
    cut: '#7d5a40',
    surfaceSpeed: 320,
    chip: 0.012,
    stepDown: 0.5,
    scratchHardness: 35,
  },
  maple: {
    name: 'Maple',
    look: 'wood',
    face: '#dcbf93',
    cut: '#e4cba4',
    surfaceSpeed: 280,
    chip: 0.011,
    stepDown: 0.5,
    scratchHardness: 45,
  },
  cedar: {
    name: 'Cedar',
    look: 'wood',
    face: '#b3714a',
    cut: '#c58a62',
    surfaceSpeed: 400,
    chip: 0.015,
    stepDown: 0.7,
    scratchHardness: 18,
  },
  mdf: {
    name: 'MDF',
    look: 'board',
    face: '#b08d62',
    cut: '#a17f57',
    surfaceSpeed: 400,
    chip: 0.015,
    stepDown: 0.6,
    scratchHardness: 40,
  },
  paintedBoard: {
    name: 'Painted board',
    look: 'layered',
    face: '#28434f',
    cut: '#c9a877',
    surfaceSpeed: 380,
    chip: 0.014,
    stepDown: 0.6,
    scratchHardness: 40,
  },
  brass: {
    name: 'Brass',
    look: 'metal',
    face: '#c59a4a',
    cut: '#d4ad60',
    surfaceSpeed: 120,
    chip: 0.005,
    stepDown: 0.15,
    scratchHardness: 1200,
  },
  aluminium: {
    name: 'Aluminium',
    look: 'metal',
    face: '#b9bec2',
    cut: '#cfd3d6',
    surfaceSpeed: 180,
    chip: 0.006,
    stepDown: 0.2,
    scratchHardness: 1000,
  },
  anodisedAluminium: {
    name: 'Anodised aluminium',
    look: 'layered',
    face: '#2f3d55',
    cut: '#cfd3d6',
    surfaceSpeed: 180,
    chip: 0.006,
    stepDown: 0.2,
    scratchHardness: 1800,
  },
  laminate: {
    name: 'Two-layer engraving laminate',
    look: 'layered',
    face: '#1f5a55',
    cut: '#efe9dc',
    surfaceSpeed: 200,
    chip: 0.008,
    stepDown: 0.3,
    scratchHardness: 200,
  },
};
