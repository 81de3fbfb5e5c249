/** The program as a picture: the blocks as they are drawn, as SVG that stands alone, or as PNG. */
import * as Blockly from 'blockly/core';
import type { Kit } from '../../../../core/kit/kit.ts';
import type { Program } from '../../../../core/language/program.ts';
import './blockly/styles.ts';
import { around, defineBlocks } from './blockly/blocks.ts';
import { hideMeasuring } from './blockly/measuring.ts';
import { bringIn } from './blockly/convert.ts';
import { THEMES } from './blockly/renderer.ts';
import { say } from '../../../../core/words.ts';

const STYLES = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'opacity',
  'fill-opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'text-decoration',
  'display',
  'visibility'
];

/** @returns SVG with its own styles and its size in pixels */
export function svgOf(ws: Blockly.WorkspaceSvg): { svg: string; width: number; height: number } {
  hideMeasuring();
  const canvas = ws.getCanvas();
  const copy = canvas.cloneNode(true) as SVGGElement;
  const from = [canvas, ...canvas.querySelectorAll('*')];
  const to = [copy, ...copy.querySelectorAll('*')];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    (to[i] as SVGElement).setAttribute('style', STYLES.map((s) => `${s}:${style.getPropertyValue(s)}`).join(';'));
  });
  copy.removeAttribute('transform');
  // what is drawn in it (the chevrons) stays; what would have to be fetched goes
  for (const e of copy.querySelectorAll('image'))
    if (!/^data:/.test(e.getAttribute('href') ?? e.getAttribute('xlink:href') ?? '')) e.remove();
  const { left, top, right, bottom } = ws.getBlocksBoundingBox();
  const [width, height] = [Math.max(40, right - left + 24), Math.max(40, bottom - top + 24)].map(Math.ceil);
  const ground = getComputedStyle(ws.getInjectionDiv()).getPropertyValue('--paper');
  return {
    width,
    height,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="${left - 12} ${top - 12} ${width} ${height}" width="${width}" height="${height}"><rect x="${left - 12}" y="${top - 12}" width="100%" height="100%" fill="${ground}"/>${new XMLSerializer().serializeToString(copy)}</svg>`
  };
}

/** A program drawn on a sheet of its own that nobody sees. */
export async function programPicture(
  program: Program,
  kit: Kit
): Promise<{ svg: string; width: number; height: number }> {
  defineBlocks();
  const host = document.createElement('div');
  host.className = 'mb-editor paper';
  host.style.cssText = 'position:fixed;left:-9000px;top:0;width:1200px;height:900px';
  document.body.append(host);
  const before = { program: around.program, kit: around.kit };
  around.program = program;
  around.kit = kit;
  const ws = Blockly.inject(host, {
    renderer: 'mossbell',
    theme: THEMES.light,
    readOnly: true,
    sounds: false,
    media: '/blockly/'
  });
  try {
    await document.fonts.ready;
    bringIn(ws, program);
    await Blockly.renderManagement.finishQueuedRenders();
    return svgOf(ws);
  } finally {
    Object.assign(around, before);
    ws.dispose();
    host.remove();
  }
}

/** The interface's font as a rule that a picture can carry with it. */
async function fontRule(): Promise<string> {
  for (const sheet of document.styleSheets)
    for (const rule of sheet.cssRules) {
      if (!(rule instanceof CSSFontFaceRule) || !/Next/.test(rule.cssText) || !/latin-wght-normal/.test(rule.cssText))
        continue;
      if (/latin-ext/.test(rule.cssText)) continue;
      const url = /url\("?([^")]+)"?\)/.exec(rule.cssText)?.[1];
      if (!url) continue;
      const bytes = new Uint8Array(await (await fetch(new URL(url, sheet.href ?? location.href))).arrayBuffer());
      let text = '';
      for (const b of bytes) text += String.fromCharCode(b);
      return `<style>@font-face{font-family:"Atkinson Hyperlegible Next Variable";src:url(data:font/woff2;base64,${btoa(text)})}</style>`;
    }
  return '';
}
/** @param scale pixels of the picture for one of the screen */
export async function pngOf(
  { svg, width, height }: { svg: string; width: number; height: number },
  scale = 2
): Promise<Blob> {
  const whole = svg.replace(/(<svg[^>]*>)/, `$1${await fontRule()}`);
  const image = new Image();
  await new Promise<void>((done, failed) => {
    image.onload = () => done();
    image.onerror = () => failed(new Error(say('The picture could not be drawn.')));
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(whole)}`;
  });
  const canvas = document.createElement('canvas');
  canvas.width = width * scale;
  canvas.height = height * scale;
  const g = canvas.getContext('2d')!;
  g.scale(scale, scale);
  g.drawImage(image, 0, 0, width, height);
  return new Promise((done, failed) =>
    canvas.toBlob((b) => (b ? done(b) : failed(new Error(say('The picture is too large.')))), 'image/png')
  );
}
