import { KERNEL_CODE } from './kernel-code';

/** Bytes before the heights; the deepest cut lies in the first four. */
const HEAD = 16;
const PAGE = 65_536;

let compiled: WebAssembly.Module | undefined;

/** The cells of a field in the memory of the machine code that lowers them: rows of sixteen at a time. */
export class Kernel {
  readonly height: Float32Array;
  /** Who lowered each cell last, −1 for nobody. */
  readonly owner: Int32Array;
  /** Thickest metal taken since it was set to 0, mm. */
  readonly deepest: Float32Array;
  /**
   * Lowers the cells `from` to `to`, both included, to `level` in the name of `mark`; returns the thickness taken, mm, summed.
   * Takes indices within the field on trust.
   */
  readonly lowerRow: (from: number, to: number, level: number, mark: number) => number;

  /** @param height the field's heights, copied; there is nobody who lowered them */
  constructor(height: Float32Array) {
    const owners = Math.ceil((HEAD + 4 * height.length) / HEAD) * HEAD;
    const memory = new WebAssembly.Memory({ initial: Math.ceil((owners + 4 * height.length) / PAGE) });
    this.deepest = new Float32Array(memory.buffer, 0, 1);
    this.height = new Float32Array(memory.buffer, HEAD, height.length);
    this.owner = new Int32Array(memory.buffer, owners, height.length).fill(-1);
    this.height.set(height);
    compiled ??= new WebAssembly.Module(Uint8Array.from(atob(KERNEL_CODE), (c) => c.charCodeAt(0)));
    const { exports } = new WebAssembly.Instance(compiled, { field: { memory, owners } });
    this.lowerRow = exports.lowerRow as Kernel['lowerRow'];
  }
}
