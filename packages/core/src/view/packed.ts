/**
 * Views as bytes, for the way between server and device: MessagePack, with the columns of numbers as they lie in memory.
 */
import { ExtensionCodec, decode, encode } from '@msgpack/msgpack';
import type { PlanView, ProofView } from './terms';

/** The kinds of columns. The place in the list is what stands in the bytes: new ones go to the end. */
const COLUMNS = [Uint8Array, Int8Array, Uint16Array, Int16Array, Uint32Array, Int32Array, Float32Array, Float64Array];

const codec = new ExtensionCodec();
COLUMNS.forEach((Kind, type) =>
  codec.register({
    type,
    encode: (value) =>
      ArrayBuffer.isView(value) && value.constructor.name === Kind.name
        ? new Uint8Array(value.buffer, value.byteOffset, value.byteLength)
        : null,
    // A copy: columns start where their numbers may stand.
    decode: (bytes) => new Kind(new Uint8Array(bytes).buffer),
  }),
);
/** What is undefined is left out. */
const OPTIONS = { extensionCodec: codec, ignoreUndefined: true } as const;

/** Who made a result: the server of the shop, or the page of a device, whom nobody looked over the shoulder. */
export type Maker = 'server' | 'page';

/** What was planned and proved of a setup; no proof where there is no program. */
export interface Made {
  plan: PlanView;
  proof?: ProofView;
}

/** A result for the way between devices. */
export const packMade = (made: Made): Uint8Array => encode(made, OPTIONS);

/** A result that came; undefined where the bytes are none, or not all of one. */
export function unpackMade(bytes: Uint8Array): Made | undefined {
  try {
    const made = decode(bytes, OPTIONS) as Partial<Made> | null;
    return made?.plan && Array.isArray(made.plan.planned) && Array.isArray(made.plan.programs)
      ? (made as Made)
      : undefined;
  } catch {
    return undefined;
  }
}
