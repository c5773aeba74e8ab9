import * as Comlink from 'comlink';
import { leaveDrawing, noteDrawing } from './drawing';
import type { StandardView } from './scene';
import type { SeenPart } from './seen';
import type { SolidApi } from './solid.worker';

type Body = Parameters<SolidApi['body']>;
type Beside = Parameters<SolidApi['beside']>[0];

/**
 * The worker that draws the solid, with its canvas. Starting one takes a second or more without a graphics card, so it stays
 * while the plan alone is shown, and is taken up again where the solid comes back, looking from where it looked.
 */
export class SolidSeat {
  readonly canvas = document.createElement('canvas');
  readonly api: Comlink.Remote<SolidApi>;
  /** False where the browser has no WebGL. */
  readonly started: Promise<boolean>;
  private readonly worker = new Worker(new URL('./solid.worker.ts', import.meta.url), { type: 'module' });
  /** Called when the picture is lost: this seat is no good any more. */
  onLost: () => void = () => {};
  /** Called with what of the face is seen, when the view has come to rest. */
  onSeen: (part: SeenPart) => void = () => {};
  private blank = '';
  private asked = -1;
  private given: readonly unknown[] = [];
  private second: Beside = null;

  constructor() {
    this.canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;display:block';
    this.api = Comlink.wrap<SolidApi>(this.worker);
    // A canvas can be handed over once only: each worker has its own.
    const off = this.canvas.transferControlToOffscreen();
    const lost = () => this.onLost();
    this.started = this.api.start(
      Comlink.transfer(off, [off]),
      Comlink.proxy(lost),
      Comlink.proxy((part: SeenPart) => this.onSeen(part)),
      Comlink.proxy(() => noteDrawing(this.api.drawn())),
    );
    this.worker.onerror = lost;
  }

  /** A new blank or a view that was asked for (`n` counts them) is looked at afresh; else the direction stays and all is fitted in. */
  look(to: StandardView, n: number, width: number, height: number, thickness: number): void {
    const blank = `${width}/${height}/${thickness}`;
    void this.api.look(n !== this.asked ? to : blank !== this.blank ? 'corner' : 'fit', width, height, thickness);
    this.blank = blank;
    this.asked = n;
  }

  /** What stands there; the same is not given twice. */
  body(...body: Body): void {
    if (body.every((v, i) => v === this.given[i])) return;
    this.given = body;
    noteDrawing(this.api.body(...body));
  }

  /** What stands beside it, or null; the same is not given twice. */
  beside(body: Beside): void {
    if (body === this.second) return;
    this.second = body;
    noteDrawing(this.api.beside(body));
  }

  leave(): void {
    this.worker.terminate();
    this.canvas.remove();
    leaveDrawing();
  }
}

let seat: SolidSeat | null = null;
export const solidSeat = (): SolidSeat => (seat ??= new SolidSeat());

/** The job is left: the worker goes. */
export function leaveSolidSeat(): void {
  seat?.leave();
  seat = null;
}
