import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { RoomEnvironment } from 'three/examples/jsm/environments/RoomEnvironment.js';
import { profileOf, radiusOf, cuttingLength, type Cutter } from '@/core/cutters/cutter';
import { disposeGroup } from './surface';

/** A still stage that draws only when something has changed: a light room, the blank, the cutter at its place. */
export class SolidScene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(32, 1, 1, 20000);
  private readonly controls: OrbitControls;
  private body: THREE.Object3D | null = null;
  private cutter: { id: string; mesh: THREE.Group } | null = null;
  private wanted = false;
  private size = new THREE.Vector3(100, 100, 10);
  /** Called after each drawn frame. */
  onFrame: (() => void) | null = null;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.toneMapping = THREE.ACESFilmicToneMapping;
    this.renderer.toneMappingExposure = 1.02;
    const pmrem = new THREE.PMREMGenerator(this.renderer);
    this.scene.environment = pmrem.fromScene(new RoomEnvironment(), 0.04).texture;
    this.scene.environmentIntensity = 0.55;
    pmrem.dispose();
    const key = new THREE.DirectionalLight(0xfff4e2, 2.1);
    key.position.set(-0.9, 0.8, 1.1);
    const rim = new THREE.DirectionalLight(0xdfeaff, 0.5);
    rim.position.set(1, -0.4, 0.6);
    this.scene.add(key, rim);
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enableDamping = false;
    this.controls.zoomToCursor = true;
    this.controls.addEventListener('change', () => this.draw());
  }

  resize(width: number, height: number): void {
    if (!width || !height) return;
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio || 1));
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  setBody(body: THREE.Object3D): void {
    if (this.body) {
      this.scene.remove(this.body);
      disposeGroup(this.body);
    }
    this.body = body;
    this.scene.add(body);
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

  /** Looks at the whole blank from a standard side. */
  look(to: 'fit' | 'top' | 'front' | 'side' | 'corner', width: number, height: number, thickness: number): void {
    this.size.set(width, height, thickness);
    const target = new THREE.Vector3(width / 2, height / 2, -thickness / 2);
    const way =
      to === 'fit'
        ? this.camera.position.clone().sub(this.controls.target).normalize()
        : { top: new THREE.Vector3(0, -0.0001, 1), front: new THREE.Vector3(0, -1, 0.02), side: new THREE.Vector3(1, 0, 0.02), corner: new THREE.Vector3(-0.34, -0.72, 0.92) }[to].normalize();
    if (!(way.length() > 0.5)) way.set(-0.34, -0.72, 0.92).normalize();
    // Far enough that all eight corners are in view.
    const forward = way.clone().negate();
    const right = new THREE.Vector3().crossVectors(forward, this.camera.up).normalize();
    const up = new THREE.Vector3().crossVectors(right, forward);
    const tan = Math.tan((this.camera.fov * Math.PI) / 360);
    let far = 0;
    for (const sx of [-0.5, 0.5])
      for (const sy of [-0.5, 0.5])
        for (const sz of [-0.5, 0.5]) {
          const v = new THREE.Vector3(sx * width, sy * height, sz * thickness);
          far = Math.max(far, Math.abs(v.dot(up)) / tan - v.dot(forward), Math.abs(v.dot(right)) / (tan * this.camera.aspect) - v.dot(forward));
        }
    this.controls.target.copy(target);
    this.camera.position.copy(target).addScaledVector(way, far * 1.08);
    this.camera.near = Math.max(0.1, far / 200);
    this.camera.far = far * 20;
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  draw(): void {
    if (this.wanted) return;
    this.wanted = true;
    requestAnimationFrame(() => {
      this.wanted = false;
      this.renderer.render(this.scene, this.camera);
      this.onFrame?.();
    });
  }

  /** The canvas as a small picture. */
  picture(width: number, height: number, background: string): string {
    const from = this.renderer.domElement;
    const c = document.createElement('canvas');
    c.width = width;
    c.height = height;
    const ctx = c.getContext('2d')!;
    ctx.fillStyle = background;
    ctx.fillRect(0, 0, width, height);
    const k = Math.max(width / from.width, height / from.height);
    const w = from.width * k;
    const h = from.height * k;
    ctx.drawImage(from, (width - w) / 2, (height - h) / 2, w, h);
    return c.toDataURL('image/png');
  }

  dispose(): void {
    if (this.body) disposeGroup(this.body);
    if (this.cutter) disposeGroup(this.cutter.mesh);
    this.controls.dispose();
    this.renderer.dispose();
  }
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
  const shank = [new THREE.Vector2(c.shankDiameter / 2, edges), new THREE.Vector2(c.shankDiameter / 2, edges + Math.max(20, edges))];
  const steel = new THREE.MeshStandardMaterial({ color: 0x9fb4b2, metalness: 0.6, roughness: 0.3, transparent: true, opacity: 0.75, side: THREE.DoubleSide });
  const g = new THREE.Group();
  for (const line of [points, shank]) {
    const mesh = new THREE.Mesh(new THREE.LatheGeometry(line, 40), steel);
    mesh.rotation.x = Math.PI / 2;
    g.add(mesh);
  }
  return g;
}
