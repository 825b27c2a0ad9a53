import type { Size, Touch } from './terms';

/** Stands in for the canvas beside the page: what the page feels there is felt here, in pixels from its corner. */
export class Hand extends EventTarget {
  readonly style = {};
  readonly ownerDocument = this;

  constructor(public size: Size) {
    super();
  }

  get clientWidth(): number {
    return this.size.width;
  }

  get clientHeight(): number {
    return this.size.height;
  }

  getBoundingClientRect() {
    return { left: 0, top: 0, width: this.size.width, height: this.size.height };
  }

  feel({ type, x, y, ...more }: Touch): void {
    this.dispatchEvent(Object.assign(new Event(type), { clientX: x, clientY: y, pageX: x, pageY: y, ...more }));
  }

  /** The page's canvas holds on to the pointer itself. */
  setPointerCapture(): void {}
  releasePointerCapture(): void {}
}
