import { applyPalette, GIFEncoder, quantize } from 'gifenc';
import type { Frame } from './frames';

/**
 * A looping picture of these frames.
 *
 * @param paint - shows the moment of a frame on the canvas
 * @param onprogress - share done, 0 to 1; answers whether to go on
 * @returns null when it was stopped
 */
export async function filmOf(
  canvas: HTMLCanvasElement,
  frames: readonly Frame[],
  paint: (timeMs: number) => void,
  onprogress: (share: number) => boolean,
): Promise<Blob | null> {
  const small = document.createElement('canvas');
  const width = 640;
  const height = Math.round((canvas.height / canvas.width) * width);
  small.width = width;
  small.height = height;
  const pen = small.getContext('2d', { willReadFrequently: true });
  if (pen === null) throw new Error('the browser gives no canvas to film on');
  const gif = GIFEncoder();
  for (const [i, { timeMs, showMs }] of frames.entries()) {
    paint(timeMs);
    pen.drawImage(canvas, 0, 0, width, height);
    const { data } = pen.getImageData(0, 0, width, height);
    const palette = quantize(data, 128);
    gif.writeFrame(applyPalette(data, palette), width, height, {
      palette,
      delay: showMs,
      ...(i === 0 ? { repeat: 0 } : {}),
    });
    if (!onprogress((i + 1) / frames.length)) return null;
    // Lets the page breathe between pictures.
    await new Promise((done) => setTimeout(done));
  }
  gif.finish();
  return new Blob([gif.bytes()], { type: 'image/gif' });
}
