import { wire as say } from '#words/index.ts';

/** Longer than this, a photograph is made smaller: sockets and knobs are read well at it. */
const LONGEST_PX = 1600;
const QUALITY = 0.85;

/** Where a picture of this size is made smaller to. */
export function fitted(width: number, height: number): { width: number; height: number } {
  const scale = Math.min(1, LONGEST_PX / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

/**
 * The picture as JPEG, small enough to keep; place and camera that the file may name are left behind.
 * @throws Error with a sentence where the browser cannot read it
 */
export async function asPhoto(file: Blob): Promise<Blob> {
  let image: ImageBitmap;
  try {
    image = await createImageBitmap(file);
  } catch {
    throw new Error(say.thisBrowserCantRead());
  }
  const { width, height } = fitted(image.width, image.height);
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.drawImage(image, 0, 0, width, height);
  image.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}
