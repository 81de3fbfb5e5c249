/** A run as a moving picture: the yard is drawn again for each moment of the trace, so that nothing is missed. */
import { applyPalette, GIFEncoder, quantize } from 'gifenc';
import { BufferTarget, CanvasSource, Output, QUALITY_HIGH, WebMOutputFormat } from 'mediabunny';

export type Kind = 'gif' | 'webm';
/** Frames a second, and the longest edge, pixels. */
const RATE: Record<Kind, number> = { gif: 10, webm: 20 };
const EDGE: Record<Kind, number> = { gif: 480, webm: 960 };

/**
 * @param at shows the yard at a moment, microseconds, and gives the picture of it
 * @param progress 0 to 1 @param cancelled asked before every frame
 * @returns undefined if it was cancelled
 */
export async function record(
  kind: Kind,
  endUs: number,
  at: (us: number) => Promise<ImageBitmap>,
  progress: (share: number) => void,
  cancelled: () => boolean
): Promise<Blob | undefined> {
  const frames = Math.max(1, Math.ceil((endUs / 1e6) * RATE[kind]));
  const first = await at(0);
  const scale = Math.min(1, EDGE[kind] / Math.max(first.width, first.height));
  const canvas = document.createElement('canvas');
  // video codecs want even numbers
  canvas.width = Math.round((first.width * scale) / 2) * 2;
  canvas.height = Math.round((first.height * scale) / 2) * 2;
  const g = canvas.getContext('2d', { willReadFrequently: kind === 'gif' })!;
  const gif = kind === 'gif' ? GIFEncoder() : undefined;
  const target = new BufferTarget();
  const output = kind === 'webm' ? new Output({ format: new WebMOutputFormat(), target }) : undefined;
  const source = output && new CanvasSource(canvas, { codec: 'vp8', bitrate: QUALITY_HIGH });
  if (output && source) {
    output.addVideoTrack(source, { frameRate: RATE.webm });
    await output.start();
  }
  for (let i = 0; i <= frames; i++) {
    if (cancelled()) {
      await output?.cancel();
      return undefined;
    }
    const picture = await at(Math.min(endUs, (i / RATE[kind]) * 1e6));
    g.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    if (gif) {
      const { data } = g.getImageData(0, 0, canvas.width, canvas.height);
      const palette = quantize(data, 128);
      gif.writeFrame(applyPalette(data, palette), canvas.width, canvas.height, { palette, delay: 1000 / RATE.gif });
    } else await source!.add(i / RATE.webm, 1 / RATE.webm);
    progress(i / frames);
  }
  if (gif) {
    gif.finish();
    return new Blob([gif.bytes() as BlobPart], { type: 'image/gif' });
  }
  await output!.finalize();
  return new Blob([target.buffer!], { type: 'video/webm' });
}

/** An SVG of the page as a picture; what it shows is in its attributes, so that nothing of the page's style is needed. */
export async function pictureOf(svg: SVGSVGElement, scale = 2): Promise<ImageBitmap> {
  const { width, height } = svg.getBoundingClientRect();
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('width', String(width * scale));
  copy.setAttribute('height', String(height * scale));
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.removeAttribute('class');
  copy.setAttribute('style', 'background: #e9ebdd; font-family: sans-serif');
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(new XMLSerializer().serializeToString(copy))}`;
  await image.decode();
  return createImageBitmap(image, { resizeWidth: Math.round(width * scale), resizeHeight: Math.round(height * scale) });
}
export async function png(picture: ImageBitmap): Promise<Blob> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [picture.width, picture.height];
  canvas.getContext('2d')!.drawImage(picture, 0, 0);
  return new Promise((done) => canvas.toBlob((blob) => done(blob!), 'image/png'));
}
