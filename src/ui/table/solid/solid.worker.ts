import * as Comlink from 'comlink';
import type { Cutter } from '@/core/cutters/cutter';
import type { BodyMaterial } from '@/core/cutters/castMaterials';
import type { PaintId } from '@/core/cutters/paints';
import { filled, flatField, type HeightField } from '@/core/relief/field';
import type { Tint } from '@/core/relief/tint';
import { SolidScene, type SecondBody, type StandardView } from './scene';
import type { Face } from './grid';
import type { SeenPart } from './seen';

let scene: SolidScene | null = null;

/** The solid view's own worker: everything that draws in the round happens here. */
const api = {
  /** Takes the canvas over; false when there is no WebGL. `lost`, `seen` and `coarse`: see SolidScene. */
  start(canvas: OffscreenCanvas, lost: () => void, seen?: (part: SeenPart) => void, coarse?: () => void): boolean {
    try {
      scene = new SolidScene(canvas, lost, seen, coarse);
      return true;
    } catch {
      return false;
    }
  },
  drawn: () => scene?.drawn(),
  resize: (width: number, height: number, dpr: number) => scene?.resize(width, height, dpr),
  /** What stands there, until it is drawn. */
  body(
    field: HeightField | null,
    under: HeightField | null,
    width: number,
    height: number,
    thickness: number,
    material: BodyMaterial,
    paint: PaintId,
    tint: Tint,
    inlaid: Face['inlaid'],
  ): Promise<void> | undefined {
    scene?.show(
      // Where a relief is empty, the face of the blank is seen.
      field ? filled(field) : flatField(width, height, Math.max(width, height) / 60),
      under,
      width,
      height,
      thickness,
      material,
      paint,
      tint,
      inlaid,
    );
    return scene?.drawn();
  },
  /** A second body, standing at a place of its own, until it is drawn; null: none. */
  beside(body: SecondBody | null): Promise<void> | undefined {
    scene?.setBeside(body);
    return scene?.drawn();
  },
  /** Light from a direction and a height, degrees, as the plan has it; null: as it is best seen. */
  lit: (light: { readonly from: number; readonly high: number } | null) => scene?.setLight(light),
  busy: (busy: boolean) => scene?.setBusy(busy),
  cutter: (c: Cutter | null, x: number, y: number, z: number) => scene?.setCutter(c, x, y, z),
  look: (to: StandardView, width: number, height: number, thickness: number) =>
    scene?.look(to, width, height, thickness),
  orbit: (dx: number, dy: number) => scene?.orbit(dx, dy),
  pan: (dx: number, dy: number) => scene?.pan(dx, dy),
  zoom: (factor: number) => scene?.zoom(factor),
  picture: (width: number, height: number) => scene!.picture(width, height),
};

export type SolidApi = typeof api;
Comlink.expose(api);
