/** A picture from a file, made small enough to live in the log. */
import { PICTURE_CHARACTERS } from '#core/log';

const LONGEST_PIXELS = 900;
/** Tried in turn until the picture fits. */
const QUALITIES = [0.8, 0.6, 0.4, 0.2];

/** @returns a JPEG data address. @throws Error in words when the file is no picture */
export async function smallPicture(file: Blob): Promise<string> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) throw new Error('This file is no picture that the browser can read; nothing was kept.');
  const scale = Math.min(1, LONGEST_PIXELS / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * scale));
  canvas.height = Math.max(1, Math.round(bitmap.height * scale));
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  for (const quality of QUALITIES) {
    const data = canvas.toDataURL('image/jpeg', quality);
    if (data.length <= PICTURE_CHARACTERS) return data;
  }
  throw new Error('This picture is too large for the log even when made small; nothing was kept.');
}
