/** An SVG as a PNG. */

/** No browser draws larger canvases for sure. */
const MOST_PIXELS_WIDE = 16_000;
const MOST_PIXELS = 60_000_000;

/** @throws Error in words when the browser can't draw it */
export async function pngOf(svg: string, width: number, height: number): Promise<Blob> {
  const scale = Math.min(
    2,
    MOST_PIXELS_WIDE / width,
    MOST_PIXELS_WIDE / height,
    Math.sqrt(MOST_PIXELS / (width * height)),
  );
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.floor(width * scale));
    canvas.height = Math.max(1, Math.floor(height * scale));
    const context = canvas.getContext('2d');
    if (!context) throw new Error('no canvas');
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('no picture');
    return blob;
  } catch {
    throw new Error('This browser could not draw the picture; the plan may be too large for one.');
  } finally {
    URL.revokeObjectURL(url);
  }
}
