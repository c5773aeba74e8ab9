import * as THREE from 'three';
import { profileOf, radiusOf, cuttingLength, type Cutter } from '@/core/cutters/cutter';
import type { BodyMaterial } from '@/core/cutters/castMaterials';
import type { HeightField } from '@/core/relief/field';
import { lightFrom, type Light } from '@/core/relief/shade';
import { disposeGroup, FieldMesh } from './fieldMesh';
import { roomTexture } from './roomTexture';
import { Pace } from './pace';
import { partSeen, type SeenPart, type Sight } from './seen';

export type StandardView = 'fit' | 'top' | 'front' | 'side' | 'corner' | 'under';

/** A body that stands beside the blank: its face, and where its lower left corner of z = 0 is, mm. */
export interface SecondBody {
  readonly field: HeightField;
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  readonly material: BodyMaterial;
  readonly at: readonly [number, number, number];
}

/** Where the standard views look from: turn about Z from the front, and height above the horizon, radians. */
const STANDARD: Record<Exclude<StandardView, 'fit'>, [number, number]> = {
  top: [0, Math.PI / 2],
  front: [0, 0.03],
  side: [Math.PI / 2, 0.03],
  corner: [-0.24, 0.93],
  under: [Math.PI, -1.1],
};

/** Strength of the room's light. */
const AMBIENT = 0.42;

/** Strength of the light from behind. */
const RIM = 0.5;

/** A driver that takes longer than this (ms) for a full frame is slow: it draws drafts until there has been rest. */
const SLOW = 90;
/** A view that has not moved for so long, ms, has come to rest. */
const STILL = 250;

/**
 * A still stage that draws only when something has changed: a light room, the blank, the cutter at its
 * place. It knows no window: it runs in a worker on an off-screen canvas, so that drawing never holds the
 * interface up.
 */
export class SolidScene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(30, 1, 1, 20000);
  private readonly target = new THREE.Vector3();
  private readonly key = new THREE.DirectionalLight(0xfff4e2, 2.6);
  private readonly rim = new THREE.DirectionalLight(0xdfeaff, RIM);
  /** Where the light was put; null: the key light as it is best seen. */
  private put: Light | null = null;
  private turn = 0;
  private lift = 0.9;
  private far = 500;
  private blank: [number, number, number] = [100, 100, 10];
  private readonly surface = new FieldMesh();
  private readonly second = new FieldMesh();
  /** Where that stands. */
  private beside: readonly [number, number, number] = [0, 0, 0];
  private cutter: { id: string; mesh: THREE.Group } | null = null;
  private width = 1;
  private height = 1;
  private ratio = 1;
  /** Whether what is drawn has compiled, and whether a full frame of it has been timed. */
  private compiled = false;
  private timed = false;
  private drafted = false;
  private readonly pace: Pace;
  private still: ReturnType<typeof setTimeout> | undefined;

  /**
   * `lost` is told when the graphics driver takes the picture away: the scene is no good then. `seen` is told what of the face is
   * in view, when that has come to rest; `coarse` that a draft is seen, until what is asked for is `drawn` in full.
   */
  constructor(
    private readonly canvas: OffscreenCanvas,
    lost: () => void,
    private readonly seen: (part: SeenPart) => void = () => {},
    coarse?: () => void,
  ) {
    this.pace = new Pace((draft) => this.paint(draft), coarse);
    canvas.addEventListener('webglcontextlost', () => lost());
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.toneMapping = THREE.ACESFilmicToneMapping;
    this.renderer.toneMappingExposure = 1.02;
    this.scene.environment = roomTexture();
    this.second.group.visible = false;
    this.scene.add(this.key, this.rim, this.surface.group, this.second.group);
    this.camera.up.set(0, 0, 1);
  }

  resize(width: number, height: number, dpr: number): void {
    if (!width || !height) return;
    [this.width, this.height, this.ratio] = [width, height, Math.min(2, dpr)];
    this.drafted = false;
    this.detail(false);
    const pixels = width * height * this.ratio ** 2;
    this.surface.seenBy(pixels);
    this.second.seenBy(pixels);
    this.renderer.setPixelRatio(this.ratio);
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** Puts the light where the plan has it, degrees; null: where it is best seen. */
  setLight(light: { readonly from: number; readonly high: number } | null): void {
    this.put = light && lightFrom(light.from, light.high);
    this.draw();
  }

  /** What stands there is another: it may take longer to draw, or not so long. */
  show(...body: Parameters<FieldMesh['show']>): void {
    this.surface.show(...body);
    this.timed = false;
    this.draw();
  }

  private detail(draft: boolean): void {
    this.surface.detail(draft);
    this.second.detail(draft);
  }

  setBeside(body: SecondBody | null): void {
    this.second.group.visible = !!body;
    if (body) {
      const { field, width, height, thickness, material, at } = body;
      this.second.show(field, null, width, height, thickness, material, 'none', 'material');
      this.second.group.position.set(...at);
      this.beside = at;
    }
    this.draw();
  }

  /** A cutter standing with its tip at a point, or none. */
  setCutter(c: Cutter | null, x = 0, y = 0, z = 0): void {
    if (this.cutter && this.cutter.id !== c?.id) {
      this.scene.remove(this.cutter.mesh);
      disposeGroup(this.cutter.mesh);
      this.cutter = null;
    }
    if (c) {
      if (!this.cutter) {
        this.cutter = { id: c.id, mesh: cutterMesh(c) };
        this.scene.add(this.cutter.mesh);
      }
      this.cutter.mesh.position.set(x, y, z);
    }
    this.draw();
  }

  /** Turns about the target, by parts of a turn per height of the view. */
  orbit(dx: number, dy: number): void {
    this.turn -= dx * Math.PI;
    this.lift = Math.min(Math.PI / 2, Math.max(-Math.PI / 2, this.lift + dy * Math.PI));
    this.place();
  }

  /** Shifts the target, in heights of the view. */
  pan(dx: number, dy: number): void {
    const k = 2 * this.far * Math.tan((this.camera.fov * Math.PI) / 360);
    const { right, up } = this.axes();
    this.target.addScaledVector(right, -dx * k).addScaledVector(up, dy * k);
    this.place();
  }

  zoom(factor: number): void {
    this.far = Math.min(20000, Math.max(2, this.far / factor));
    this.place();
  }

  private sight(): Sight {
    const { position: from, fov, aspect } = this.camera;
    return { from, ...this.axes(), tan: Math.tan((fov * Math.PI) / 360), aspect };
  }

  private axes(): Axes {
    return axesOf(this.turn, this.lift);
  }

  private place(): void {
    this.far = Math.max(this.far, wayOut(this.blank, this.target, this.axes().way));
    aim(this.camera, this.target, this.axes(), this.far);
    clearTimeout(this.still);
    this.still = setTimeout(() => this.rested(), STILL);
    this.draw();
  }

  /** What is looked at closely is drawn with more of what there is. */
  private rested(): void {
    const part = partSeen(this.sight());
    this.seen(part);
    const [x, y] = this.beside;
    const shifted = { x0: part.x0 - x, y0: part.y0 - y, x1: part.x1 - x, y1: part.y1 - y };
    const changed = [this.surface.closer(part), this.second.closer(shifted)];
    if (!changed.includes(true)) return;
    this.pace.better();
  }

  /** Looks at the whole blank from a standard side, or from where it stands. */
  look(to: StandardView, width: number, height: number, thickness: number): void {
    if (to !== 'fit') [this.turn, this.lift] = STANDARD[to];
    this.blank = [width, height, thickness];
    this.target.set(width / 2, height / 2, -thickness / 2);
    this.far = farEnough(this.blank, this.axes(), this.camera);
    this.place();
  }

  /** Draws at the next frame (`./pace.ts`). */
  draw(): void {
    this.pace.draw();
  }

  /** Until what has been asked for is on the screen, in full. */
  drawn(): Promise<void> {
    return this.pace.drawn();
  }

  /** Others begin or end work that takes processors. */
  setBusy(busy: boolean): void {
    this.pace.setBusy(busy);
  }

  private paint(draft: boolean): void {
    if (this.drafted !== draft) {
      this.drafted = draft;
      this.detail(draft);
      this.renderer.setPixelRatio(this.ratio * (draft ? 0.5 : 1));
      this.renderer.setSize(this.width, this.height, false);
    }
    this.light(this.camera);
    const begun = performance.now();
    this.renderer.render(this.scene, this.camera);
    const timed = this.timed && !this.pace.slow;
    if (draft || (timed && !this.pace.awaited)) return;
    // Reading one point waits until the driver has drawn.
    const gl = this.renderer.getContext();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
    this.pace.seen();
    if (timed) return;
    // The first frame compiles and does not count.
    if (this.compiled) [this.timed, this.pace.slow] = [true, performance.now() - begun > SLOW];
    this.compiled = true;
  }

  /** Lights the face that a camera looks at, from the left of it. */
  private light(camera: THREE.PerspectiveCamera): void {
    const below = camera.position.z < -this.blank[2] / 2;
    const s = below ? -1 : 1;
    this.key.position.set(-s, 0.9, 0.85 * s);
    this.rim.position.set(s, -0.4, 0.6 * s);
    // The room is darker below.
    this.scene.environmentIntensity = below ? 1.9 * AMBIENT : AMBIENT;
    if (this.put && !below) {
      this.key.position.set(...this.put);
      // Light that rakes is seen in a dark room.
      this.scene.environmentIntensity = AMBIENT * (0.3 + 0.7 * this.put[2]);
    }
    this.rim.intensity = this.put && !below ? RIM * this.put[2] : RIM;
    this.surface.seenFrom(below);
    this.second.seenFrom(below);
  }

  /** The whole blank from the corner, as a small PNG with nothing behind it; what is seen stays as it is. */
  async picture(width: number, height: number): Promise<Blob> {
    const camera = new THREE.PerspectiveCamera(this.camera.fov, width / height, 1, 20000);
    const axes = axesOf(...STANDARD.corner);
    const [w, h, t] = this.blank;
    aim(camera, new THREE.Vector3(w / 2, h / 2, -t / 2), axes, farEnough(this.blank, axes, camera));
    this.detail(false);
    this.renderer.setPixelRatio(1);
    this.renderer.setSize(width, height, false);
    this.light(camera);
    this.renderer.render(this.scene, camera);
    const c = new OffscreenCanvas(width, height);
    const ctx = c.getContext('2d')!;
    ctx.drawImage(this.canvas, 0, 0, width, height);
    this.renderer.setPixelRatio(this.ratio);
    this.renderer.setSize(this.width, this.height, false);
    this.drafted = false;
    this.pace.full();
    return c.convertToBlob({ type: 'image/png' });
  }

  dispose(): void {
    disposeGroup(this.surface.group);
    disposeGroup(this.second.group);
    if (this.cutter) disposeGroup(this.cutter.mesh);
    this.renderer.dispose();
  }
}

/** A camera keeps so far from a blank, mm. */
const CLEAR = 1.5;

/** How far one goes from a place inside of a blank until one is out of it; 0 for a place outside. */
function wayOut(blank: readonly [number, number, number], from: THREE.Vector3, way: THREE.Vector3): number {
  const [width, height, thickness] = blank;
  const exits = [
    [from.x, way.x, 0, width],
    [from.y, way.y, 0, height],
    [from.z, way.z, -thickness, 0],
  ].map(([at, by, low, high]) => {
    if (at < low - CLEAR || at > high + CLEAR) return 0;
    return by > 0 ? (high + CLEAR - at) / by : by < 0 ? (low - CLEAR - at) / by : Infinity;
  });
  return Math.min(...exits);
}

interface Axes {
  readonly way: THREE.Vector3;
  readonly right: THREE.Vector3;
  readonly up: THREE.Vector3;
}

/** Directions of a view: from what is looked at to the camera, to the right, and up. */
function axesOf(turn: number, lift: number): Axes {
  const c = Math.cos(lift);
  const way = new THREE.Vector3(Math.sin(turn) * c, -Math.cos(turn) * c, Math.sin(lift));
  const right = new THREE.Vector3(Math.cos(turn), Math.sin(turn), 0);
  return { way, right, up: new THREE.Vector3().crossVectors(way, right) };
}

function aim(camera: THREE.PerspectiveCamera, target: THREE.Vector3, { way, up }: Axes, far: number): void {
  camera.up.copy(up);
  camera.position.copy(target).addScaledVector(way, far);
  camera.near = Math.max(0.1, far / 200);
  camera.far = far * 20;
  camera.lookAt(target);
  camera.updateProjectionMatrix();
}

/** How far the camera stands from the middle of a blank for all eight corners to be in view. */
function farEnough(
  [width, height, thickness]: readonly [number, number, number],
  { way, right, up }: Axes,
  camera: THREE.PerspectiveCamera,
): number {
  const tan = Math.tan((camera.fov * Math.PI) / 360);
  let far = 0;
  for (const sx of [-0.5, 0.5])
    for (const sy of [-0.5, 0.5])
      for (const sz of [-0.5, 0.5]) {
        const v = new THREE.Vector3(sx * width, sy * height, sz * thickness);
        far = Math.max(
          far,
          Math.abs(v.dot(up)) / tan + v.dot(way),
          Math.abs(v.dot(right)) / (tan * camera.aspect) + v.dot(way),
        );
      }
  return far * 1.07;
}

function cutterMesh(c: Cutter): THREE.Group {
  const profile = profileOf(c);
  const r = radiusOf(c);
  const edges = cuttingLength(c);
  const points: THREE.Vector2[] = [];
  for (let i = 0; i <= 24; i++) {
    const rho = (r * i) / 24;
    points.push(new THREE.Vector2(rho, profile(Math.min(rho, r - 1e-9))));
  }
  points.push(new THREE.Vector2(r, Math.max(edges, points[points.length - 1].y)));
  const shank = [
    new THREE.Vector2(c.shankDiameter / 2, edges),
    new THREE.Vector2(c.shankDiameter / 2, edges + Math.max(20, edges)),
  ];
  const steel = new THREE.MeshStandardMaterial({
    color: 0x9fb4b2,
    metalness: 0.6,
    roughness: 0.3,
    transparent: true,
    opacity: 0.75,
    side: THREE.DoubleSide,
  });
  const g = new THREE.Group();
  for (const line of [points, shank]) {
    const mesh = new THREE.Mesh(new THREE.LatheGeometry(line, 40), steel);
    mesh.rotation.x = Math.PI / 2;
    g.add(mesh);
  }
  return g;
}
