/** Photos as they are kept: small, and without what a camera writes into them of where and when it stood. */

/** Most bytes, and most of each side, pixels. */
export const PHOTO = { bytes: 400_000, side: 1600 } as const;

const MARK = 0xff;
const START = 0xd8;
const SCAN = 0xda;
/** Frames carry the size; the others in their row are tables. */
const isFrame = (kind: number) => kind >= 0xc0 && kind <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(kind);
/** Where cameras and programs write what they know, and what may stand there: how it is encoded, and what its colours are. */
const isTold = (kind: number) => (kind >= 0xe0 && kind <= 0xef) || kind === 0xfe;
const HARMLESS: Record<number, string> = { 0xe0: 'JFIF', 0xe2: 'ICC_PROFILE', 0xee: 'Adobe' };

const NO_JPEG = 'A photo is a JPEG; this one is not, or is cut off';

/** Why a photo is not kept; undefined where it is. */
export function photoFault(bytes: Uint8Array): string | undefined {
  if (bytes.length > PHOTO.bytes) return `A photo has at most ${PHOTO.bytes / 1000} kB`;
  if (bytes[0] !== MARK || bytes[1] !== START) return NO_JPEG;
  const isHarmless = (i: number) =>
    [...(HARMLESS[bytes[i + 1]] ?? '?')].every((letter, k) => bytes[i + 4 + k] === letter.charCodeAt(0));
  const two = (i: number) => bytes[i] * 256 + bytes[i + 1];
  let hasSize = false;
  for (let i = 2; i + 4 <= bytes.length && bytes[i] === MARK; i += 2 + two(i + 2)) {
    const kind = bytes[i + 1];
    if (isTold(kind) && !isHarmless(i))
      return 'The photo tells more than its picture, as cameras write it: take that out, it may say where it was taken';
    if (isFrame(kind)) {
      if (Math.max(two(i + 5), two(i + 7)) > PHOTO.side) return `A photo has at most ${PHOTO.side} pixels a side`;
      hasSize = true;
    }
    if (kind === SCAN) return hasSize ? undefined : NO_JPEG;
    if (two(i + 2) < 2) return NO_JPEG;
  }
  return NO_JPEG;
}
