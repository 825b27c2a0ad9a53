/** Photos as the log keeps them: made anew in the page, so that nothing is in them but the picture. */
import { PHOTO, photoFault } from '@tidypath/core';

/** Qualities that are tried, until it is small enough. */
const QUALITIES = [0.85, 0.75, 0.65, 0.5, 0.35];
/** Where even that is too much, its sides shrink by this. */
const SHRINK = 0.7;
const MOST_TRIES = 4;

const encoded = (canvas: HTMLCanvasElement, quality: number) =>
  new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality));

async function drawn(picture: ImageBitmap, side: number): Promise<Uint8Array | undefined> {
  const scale = Math.min(1, side / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  for (const quality of QUALITIES) {
    const blob = await encoded(canvas, quality);
    if (blob && blob.size <= PHOTO.bytes) return new Uint8Array(await blob.arrayBuffer());
  }
  return undefined;
}

/**
 * A photo as it is kept.
 * @throws where the file is no picture this browser reads
 */
export async function photoOf(file: Blob): Promise<Uint8Array> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new Error('This file is no picture that can be read here');
  });
  for (let i = 0, side: number = PHOTO.side; i < MOST_TRIES; i++, side *= SHRINK) {
    const bytes = await drawn(picture, side);
    if (bytes && !photoFault(bytes)) return bytes;
  }
  throw new Error('The picture does not get small enough');
}
