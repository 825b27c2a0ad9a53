import type { Palette } from '../theme/theme';
import type { About, Answer, Ask, Told } from './messages';
import type { MetFace, Size } from './terms';
import type { Vec3 } from '@tidypath/core';

/** A tap moves fewer pixels and lasts fewer milliseconds. */
const TAP = { moves: 6, lasts: 500 };
/** What a hand does on the picture. */
const FELT = ['pointerdown', 'pointermove', 'pointerup', 'pointercancel', 'wheel'] as const;

let worker: Worker | undefined;
let count = 0;

/** The worker that draws, started when first needed and kept. */
function drawer(): Worker {
  return (worker ??= new Worker(new URL('./scene.worker.ts', import.meta.url)));
}

/** A picture on the page, drawn by the worker: nothing the graphics are slow at holds up the page. */
export class Picture {
  private readonly id = ++count;
  private readonly canvas = document.createElement('canvas');
  private readonly gone = new AbortController();
  private onPicture?: (file?: Uint8Array) => void;
  private hasFailed = false;
  private told = 0;

  constructor(
    private readonly host: HTMLElement,
    palette: Palette,
    private readonly onTap: (at: Vec3, faces?: MetFace[]) => void,
    private readonly onFailed: (message: string) => void,
    private readonly onDrawn: () => void,
  ) {
    Object.assign(this.canvas.style, { display: 'block', width: '100%', height: '100%', touchAction: 'none' });
    host.appendChild(this.canvas);
    const { signal } = this.gone;
    drawer().addEventListener('message', (e: MessageEvent<Answer>) => this.hear(e.data), { signal });
    drawer().addEventListener('error', (e) => this.fail(e.message), { signal });
    if ('transferControlToOffscreen' in this.canvas) this.open(palette);
    else this.fail('this browser is too old for it');
  }

  private open(palette: Palette): void {
    const canvas = this.canvas.transferControlToOffscreen();
    this.send({ type: 'open', canvas, palette, size: this.size }, [canvas]);
    this.listen();
  }

  private get size(): Size {
    const { clientWidth: width, clientHeight: height } = this.host;
    return { width, height, ratio: Math.min(2, window.devicePixelRatio) };
  }

  private send(ask: Ask, given: Transferable[] = []): void {
    drawer().postMessage({ id: this.id, ...ask }, given);
  }

  private hear(answer: Answer): void {
    if (answer.id !== this.id) return;
    if (answer.type === 'drawn') this.drawn(answer.heard);
    if (answer.type === 'tapped') this.onTap(answer.at, answer.faces);
    if (answer.type === 'picture') this.onPicture?.(answer.file);
    if (answer.type === 'failed') this.fail(answer.message);
  }

  /** Hands on what a hand does; a press that neither lasts nor moves asks what stands there. */
  private listen(): void {
    const { canvas } = this;
    const { signal } = this.gone;
    let down = { x: 0, y: 0, time: 0 };
    const feel = (e: PointerEvent | WheelEvent) => {
      if (e.type === 'pointermove' && !e.buttons) return;
      const { left, top, width, height } = canvas.getBoundingClientRect();
      const { type, button, ctrlKey, metaKey, shiftKey } = e;
      const [x, y] = [e.clientX - left, e.clientY - top];
      const { pointerId = 0, pointerType = '', deltaY = 0, deltaMode = 0 } = e as Partial<PointerEvent & WheelEvent>;
      if (type === 'wheel') e.preventDefault();
      if (type === 'pointerdown') {
        canvas.setPointerCapture(pointerId);
        down = { x, y, time: e.timeStamp };
      }
      const keys = { ctrlKey, metaKey, shiftKey };
      this.tell('touch', { type, x, y, pointerId, pointerType, button, deltaY, deltaMode, ...keys });
      const isTap = Math.hypot(x - down.x, y - down.y) <= TAP.moves && e.timeStamp - down.time <= TAP.lasts;
      if (type === 'pointerup' && isTap) this.send({ type: 'tap', x: (x / width) * 2 - 1, y: 1 - (y / height) * 2 });
    };
    for (const type of FELT) canvas.addEventListener(type, feel, { signal, passive: false });
    canvas.addEventListener('contextmenu', (e) => e.preventDefault(), { signal });
  }

  tell<K extends Told>(name: K, ...about: About<K>): void {
    this.told++;
    this.setBusy(!this.hasFailed);
    this.send({ type: 'tell', name, about });
  }

  private drawn(heard: number): void {
    this.setBusy(heard < this.told);
    if (heard >= this.told) this.onDrawn();
  }

  /** Says whether the picture lags behind what it was told. */
  private setBusy(is: boolean): void {
    this.host.setAttribute('aria-busy', String(is));
  }

  /** The picture as it stands, as a PNG; undefined where it cannot be drawn. */
  png(): Promise<Uint8Array | undefined> {
    if (this.hasFailed) return Promise.resolve(undefined);
    return new Promise((resolve) => {
      this.onPicture = resolve;
      this.send({ type: 'picture' });
    });
  }

  private fail(message: string): void {
    this.hasFailed = true;
    this.setBusy(false);
    this.onPicture?.();
    this.onFailed(message);
  }

  resize(): void {
    this.tell('resize', this.size);
  }

  dispose(): void {
    this.send({ type: 'close' });
    this.gone.abort();
    this.canvas.remove();
  }
}
