/** Drawings and pictures from outside, as a mat or as its floor. Runs in the browser: it parses and paints. */
import DOMPurify from 'dompurify';
import type { Mat } from '../../../core/yard/mat.ts';
import { lightness } from '../../../core/yard/matedit.ts';
import { svgToMat, type Drawing, type FromSvg, type Shape } from '../../../core/yard/matsvg.ts';
import { say } from '../../../core/words.ts';
import { plainStyles, STYLED } from './styles.ts';

export const LARGEST_MB = 20;
/** The longest edge of a floor picture that is kept, pixels, and of its cells. */
const EDGE = 1600;
const CELLS = 800;
const METRES: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, pt: 0.0254 / 72, pc: 0.0254 / 6 };
const SHAPES = 'path,rect,circle,ellipse,line,polyline,polygon,text,image,use,foreignObject';

export type Opened = {
  drawing: Drawing;
  /** metres a user unit, where the file says so */ metres: number | undefined;
  removed: string[];
};

export function tooLarge(file: File): string | undefined {
  return file.size > LARGEST_MB * 1e6
    ? say('{name} is {mb} MB long. A drawing or picture for a mat is at most {most} MB: make it smaller first.', {
        name: file.name,
        mb: Math.round(file.size / 1e6),
        most: LARGEST_MB
      })
    : undefined;
}

/** @throws Error with a sentence */
export function openSvg(text: string, name: string): Opened {
  const clean = DOMPurify.sanitize(text, {
    USE_PROFILES: { svg: true },
    ADD_TAGS: ['use'],
    RETURN_DOM: true
  }) as unknown as HTMLElement;
  const removed = DOMPurify.removed.flatMap((r) => {
    const node =
      'element' in r && r.element
        ? (r.element as Element).nodeName.toLowerCase()
        : 'attribute' in r && r.attribute
          ? r.attribute.name
          : '';
    return node && !['#text', 'xml', '#comment', '?xml', 'body', 'head', 'html'].includes(node)
      ? [say('{what} was taken out: a drawing may not bring anything that runs or fetches', { what: `<${node}>` })]
      : [];
  });
  const svg = clean.querySelector('svg');
  if (!svg) throw new Error(say('{name} is not an SVG drawing.', { name }));
  const size = (key: string): { n: number; unit: string } => {
    const found = /^\s*([\d.]+)\s*([a-z%]*)/i.exec(svg.getAttribute(key) ?? '');
    return { n: Number(found?.[1] ?? 0), unit: found?.[2].toLowerCase() ?? '' };
  };
  const [w, h] = [size('width'), size('height')];
  const view = (svg.getAttribute('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const box: Drawing['box'] =
    view.length === 4 && view.every(Number.isFinite) && view[2] > 0 && view[3] > 0
      ? [view[0], view[1], view[2], view[3]]
      : [0, 0, w.n, h.n];
  if (!(box[2] > 0) || !(box[3] > 0))
    throw new Error(
      say('{name} does not say how large it is: it has neither a viewBox nor width and height.', { name })
    );
  // nothing is fetched: what a drawing points to is not part of it
  removed.push(...plainStyles(svg));
  // transforms are worked out by the browser, which needs the drawing in the page for it
  const stage = document.createElement('div');
  stage.style.cssText = 'position: absolute; width: 0; height: 0; overflow: hidden; visibility: hidden';
  stage.append(svg);
  document.body.append(stage);
  const shapes: Shape[] = [];
  for (const el of svg.querySelectorAll<SVGGraphicsElement>(SHAPES)) {
    if (el.closest('defs,clipPath,mask,pattern,symbol,marker')) continue;
    const attrs = Object.fromEntries([...el.attributes].map((a) => [a.name, a.value]));
    for (const key of STYLED) {
      let at: Element | null = el;
      while (at && at !== stage) {
        const v = at.getAttribute(key);
        if (v) {
          attrs[key] = v;
          break;
        }
        at = at.parentElement;
      }
    }
    attrs.id ??= el.closest('g[id]')?.id ?? '';
    let m = new DOMMatrix();
    for (let at: Element | null = el; at && at !== svg; at = at.parentElement) {
      const own = (at as SVGGraphicsElement).transform?.baseVal.consolidate()?.matrix;
      if (own) m = new DOMMatrix([own.a, own.b, own.c, own.d, own.e, own.f]).multiply(m);
    }
    shapes.push({ tag: el.tagName, attrs, text: el.textContent ?? '', matrix: [m.a, m.b, m.c, m.d, m.e, m.f] });
  }
  stage.remove();
  const attrs = Object.fromEntries([...svg.attributes].map((a) => [a.name, a.value]));
  return {
    drawing: { shapes, box, name: attrs['data-name'] ?? name.replace(/\.svg$/i, ''), attrs },
    metres: METRES[w.unit] && w.n > 0 ? (w.n * METRES[w.unit]) / box[2] : undefined,
    removed
  };
}
export const matOf = (opened: Opened, widthCm: number): FromSvg => {
  const found = svgToMat(opened.drawing, opened.metres ?? widthCm / 100 / opened.drawing.box[2]);
  return { mat: found.mat, ignored: [...opened.removed, ...found.ignored] };
};

/** A picture as the floor of a mat: how it looks, and how light each of its cells is. @throws Error with a sentence */
export async function openPicture(file: File, mat: Mat, widthCm: number): Promise<Mat> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(
      say('{name} is not a picture that this browser can read. PNG, JPEG and WebP work.', { name: file.name })
    );
  });
  const width = widthCm / 100;
  const height = Math.round((width * picture.height * 1e4) / picture.width) / 1e4;
  if (!(width >= 0.2 && width <= 10 && height >= 0.2 && height <= 10))
    throw new Error(
      say('The floor would be {width} m by {height} m. A mat is from 0.2 to 10 m on each side.', { width, height })
    );
  const draw = (edge: number): HTMLCanvasElement => {
    const scale = Math.min(1, edge / Math.max(picture.width, picture.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(picture.width * scale));
    canvas.height = Math.max(1, Math.round(picture.height * scale));
    const g = canvas.getContext('2d')!;
    g.fillStyle = '#ffffff';
    g.fillRect(0, 0, canvas.width, canvas.height);
    g.drawImage(picture, 0, 0, canvas.width, canvas.height);
    return canvas;
  };
  const cells = draw(CELLS);
  const { data } = cells.getContext('2d')!.getImageData(0, 0, cells.width, cells.height);
  const known = new Map<number, number>();
  let grey = '';
  for (let i = 0; i < data.length; i += 4) {
    const rgb = (data[i] << 16) | (data[i + 1] << 8) | data[i + 2];
    let light = known.get(rgb);
    if (light === undefined) known.set(rgb, (light = lightness(`#${rgb.toString(16).padStart(6, '0')}`)));
    grey += String.fromCharCode(Math.max(0, Math.min(100, light)));
  }
  const shown = draw(EDGE);
  let png = shown.toDataURL('image/png');
  // a photograph is far smaller as JPEG
  if (png.length > 1_000_000) png = shown.toDataURL('image/jpeg', 0.85);
  picture.close();
  return { ...mat, width, height, floor: { png, columns: cells.width, rows: cells.height, grey: btoa(grey) } };
}
