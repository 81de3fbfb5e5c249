/**
 * The look of our blocks: pale cards, a coloured stem on the left edge, rounded buds, value shapes of our own. It stands on
 * the block library's renderer for inline values and replaces its constants, its shapes and what it draws on top.
 */
import * as Blockly from 'blockly/core';
import { SECTIONS, type Family, type Section } from '../../../../../core/language/define.ts';
import { catalogue } from '../../../../../core/language/catalogue.ts';
import { ICONS } from '../../../ui/icons.ts';

const { zelos } = Blockly;
export const STEM = 20;
/** A shape type of our own, beside the library's HEXAGONAL 1, ROUND 2, SQUARE 3. */
const PICTURE = 6;
const LIST = 7;
const CHEVRON = (colour: string): string =>
  'data:image/svg+xml,' +
  encodeURIComponent(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 12 12" fill="none" stroke="${colour}" stroke-width="1.8" stroke-linecap="round"><path d="M3 4.5l3 3 3-3"/></svg>`
  );

class Constants extends zelos.ConstantProvider {
  constructor() {
    super(2.75);
    this.FIELD_DROPDOWN_SVG_ARROW_DATAURI = CHEVRON('#77857a');
    this.CORNER_RADIUS = 6;
    this.STATEMENT_INPUT_PADDING_LEFT = STEM;
    this.STATEMENT_INPUT_SPACER_MIN_WIDTH = 120;
    this.NOTCH_WIDTH = 16;
    this.NOTCH_HEIGHT = 5;
    this.NOTCH_OFFSET_LEFT = 28;
    this.STATEMENT_INPUT_NOTCH_OFFSET = 28;
    this.MIN_BLOCK_HEIGHT = 32;
    this.EMPTY_STATEMENT_INPUT_HEIGHT = 28;
    this.BOTTOM_ROW_AFTER_STATEMENT_MIN_HEIGHT = 12;
    this.TOP_ROW_MIN_HEIGHT = 3;
    this.BOTTOM_ROW_MIN_HEIGHT = 3;
    this.TOP_ROW_PRECEDES_STATEMENT_MIN_HEIGHT = 4;
    this.SELECTED_GLOW_COLOUR = '#b5842a';
    this.FIELD_BORDER_RECT_RADIUS = 9;
    this.FIELD_BORDER_RECT_HEIGHT = 22;
    this.FIELD_DROPDOWN_BORDER_RECT_HEIGHT = 22;
    this.FIELD_BORDER_RECT_X_PADDING = 3;
    this.FIELD_DROPDOWN_SVG_ARROW_SIZE = 10;
    this.FIELD_DROPDOWN_SVG_ARROW_PADDING = 4;
    this.SHAPE_IN_SHAPE_PADDING[1] = { 0: 6, 1: 8, 2: 4, 3: 6, 4: 4, 5: 6, 6: 6 };
    this.SHAPE_IN_SHAPE_PADDING[2] = { 0: 3, 1: 3, 2: 3, 3: 3, 6: 3 };
    this.SHAPE_IN_SHAPE_PADDING[3] = { 0: 4, 1: 4, 2: 4, 3: 4, 6: 4 };
    this.SHAPE_IN_SHAPE_PADDING[PICTURE] = { 0: 6, 1: 6, 2: 6, 3: 6, 6: 6, 7: 6 };
    this.SHAPE_IN_SHAPE_PADDING[LIST] = { 0: 6, 1: 6, 2: 6, 3: 6, 6: 6, 7: 8 };
    for (const outer of [1, 2, 3]) this.SHAPE_IN_SHAPE_PADDING[outer][LIST] = 6;
  }
  /** Joins are rounded buds. */
  override makeNotch() {
    const w = this.NOTCH_WIDTH;
    const h = this.NOTCH_HEIGHT;
    return {
      type: this.SHAPES.NOTCH,
      width: w,
      height: h,
      pathLeft: `a ${w / 2},${h} 0 0,0 ${w},0`,
      pathRight: `a ${w / 2},${h} 0 0,1 ${-w},0`
    };
  }
  private valueShape(
    type: number,
    width: number,
    left: (h: number, f: number) => string,
    right: (h: number, f: number) => string
  ): Blockly.blockRendering.DynamicShape {
    return {
      type,
      isDynamic: true,
      width: () => width,
      height: (h) => h,
      connectionOffsetY: (h) => h / 2,
      connectionOffsetX: (w) => -w,
      pathDown: (h) => left(h, 1),
      pathUp: (h) => left(h, -1),
      pathRightDown: (h) => right(h, 1),
      pathRightUp: (h) => right(h, -1)
    };
  }
  /** A number: a plant label, square to the left and pointed to the right. */
  override makeRounded() {
    const w = 7;
    const r = 3;
    return this.valueShape(
      this.SHAPES.ROUND,
      w,
      (h, f) => `h ${-(w - r)} q ${-r},0 ${-r},${f * r} v ${f * (h - 2 * r)} q 0,${f * r} ${r},${f * r} h ${w - r}`,
      (h, f) => `l ${w},${(f * h) / 2} l ${-w},${(f * h) / 2}`
    );
  }
  /** A condition: a ticket stub, its ends bitten in. */
  override makeHexagonal() {
    const w = 9;
    const bite = 5;
    const side = (h: number, f: number, right: boolean): string => {
      const d = right ? -1 : 1;
      const e = Math.max(2, h * 0.2);
      const c = 3;
      return `h ${-d * (w - c)} q ${-d * c},0 ${-d * c},${f * Math.min(c, e)} v ${f * Math.max(0, e - c)} a ${bite},${h / 2 - e} 0 0,${f < 0 === right ? 1 : 0} 0,${f * (h - 2 * e)} v ${f * Math.max(0, e - c)} q 0,${f * Math.min(c, e)} ${d * c},${f * Math.min(c, e)} h ${d * (w - c)}`;
    };
    return this.valueShape(
      this.SHAPES.HEXAGONAL,
      w,
      (h, f) => side(h, f, false),
      (h, f) => side(h, f, true)
    );
  }
  /** Text, and what may be anything: squared. */
  override makeSquared() {
    const w = 6;
    const r = 2;
    return this.valueShape(
      this.SHAPES.SQUARE,
      w,
      (h, f) => `h ${-(w - r)} q ${-r},0 ${-r},${f * r} v ${f * (h - 2 * r)} q 0,${f * r} ${r},${f * r} h ${w - r}`,
      (h, f) => `h ${w - r} q ${r},0 ${r},${f * r} v ${f * (h - 2 * r)} q 0,${f * r} ${-r},${f * r} h ${-(w - r)}`
    );
  }
  /** A picture: one corner cut. */
  private readonly picture = this.valueShape(
    PICTURE,
    7,
    (h, f) => (f > 0 ? `h -7 v ${h} h 7` : `h -7 v ${-h} h 7`),
    (h, f) => (f > 0 ? `l 7,7 v ${h - 7} h -7` : `h 7 v ${-(h - 7)} l -7,-7`)
  );
  /** A list: squared, with a doubled edge; the second line is drawn by the drawer. */
  private readonly listShape = this.valueShape(
    LIST,
    9,
    (h, f) => `h -7 q -2,0 -2,${f * 2} v ${f * (h - 4)} q 0,${f * 2} 2,${f * 2} h 7`,
    (h, f) => `h 7 q 2,0 2,${f * 2} v ${f * (h - 4)} q 0,${f * 2} -2,${f * 2} h -7`
  );
  override shapeFor(connection: Blockly.RenderedConnection): ReturnType<Blockly.zelos.ConstantProvider['shapeFor']> {
    const value =
      connection.type === Blockly.ConnectionType.INPUT_VALUE || connection.type === Blockly.ConnectionType.OUTPUT_VALUE;
    if (!value) return super.shapeFor(connection);
    const checks = connection.getCheck() ?? [];
    if (checks.includes('Any') && checks.length > 2) return this.SQUARED!;
    if (checks.includes('Boolean')) return this.HEXAGONAL!;
    if (checks.includes('Picture')) return this.picture;
    if (checks.includes('List')) return this.listShape;
    if (checks[0] === 'Text') return this.SQUARED!;
    if (checks.includes('Number')) return this.ROUNDED!;
    return this.SQUARED!;
  }
}

const SVG = 'http://www.w3.org/2000/svg';
export const sectionOf = (type: string): Section =>
  type === 'routine.define' ? 'reuse' : (catalogue.get(type)?.section ?? 'work');
export const familyOfType = (type: string): Family => SECTIONS[sectionOf(type)].family;
/** A starter's icon shows its trigger. */
function iconOf(type: string): keyof typeof ICONS {
  const def = catalogue.get(type);
  return (def?.shape === 'starter' && (def.icon as keyof typeof ICONS)) || sectionOf(type);
}
const isWrap = (b: Blockly.BlockSvg): boolean =>
  b.inputList.some((i) => i.type === Blockly.inputs.inputTypes.STATEMENT);

/** The opening of a block that holds others, from its header to its foot, in the block's own units. */
export type Mouth = { input: string; top: number; bottom: number };
const mouths = new WeakMap<Blockly.BlockSvg, Mouth[]>();
export const mouthsOf = (block: Blockly.BlockSvg): readonly Mouth[] => mouths.get(block) ?? [];

class Drawer extends zelos.Drawer {
  private doubleEdge(root: SVGElement): void {
    const { width, height } = this.info_;
    const edge = document.createElementNS(SVG, 'path');
    edge.setAttribute('class', 'mb-stem mb-edge');
    edge.setAttribute('d', `M 4,3 V ${height - 3} M ${width - 4},3 V ${height - 3}`);
    root.append(edge);
  }
  override draw(): void {
    super.draw();
    const block = this.block_;
    const { rows, height: all } = this.info_;
    mouths.set(
      block,
      rows.flatMap((row, i) => {
        const input = row.hasStatement && row.getLastInput()?.input.name;
        // a spacer lies between it and the next row
        return input ? [{ input, top: row.yPos, bottom: rows[i + 2]?.yPos ?? all }] : [];
      })
    );
    const root = block.getSvgRoot();
    root.querySelectorAll(':scope > .mb-stem').forEach((e) => e.remove());
    if (block.outputConnection) {
      if (block.outputConnection.getCheck()?.includes('List')) this.doubleEdge(root);
      return;
    }
    const height = this.info_.height;
    const r = 6;
    const stem = document.createElementNS(SVG, 'path');
    stem.setAttribute('class', `mb-stem mb-${familyOfType(block.type)}`);
    stem.setAttribute(
      'd',
      `M 0,${r} a ${r},${r} 0 0,1 ${r},${-r} h ${STEM - r} v ${height} h ${r - STEM} a ${r},${r} 0 0,1 ${-r},${-r} z`
    );
    (block.pathObject as Blockly.zelos.PathObject).svgPath.after(stem);
    // icons stand on starters, wraps and the first block of a run of its section
    const section = sectionOf(block.type);
    const before = block.getPreviousBlock();
    if (!isWrap(block) && before && sectionOf(before.type) === section && !isWrap(before)) return;
    const icon = document.createElementNS(SVG, 'g');
    icon.setAttribute('class', 'mb-stem mb-icon');
    icon.setAttribute('transform', `translate(3.5 ${Math.min(height, 33) / 2 - 6.5}) scale(.55)`);
    icon.innerHTML = ICONS[iconOf(block.type)];
    stem.after(icon);
  }
}
/** A comma stands at the word before it, with no gap. */
const COMMA_PX = 1;
class Info extends zelos.RenderInfo {
  override getInRowSpacing_(
    prev: Blockly.blockRendering.Measurable | null,
    next: Blockly.blockRendering.Measurable | null
  ): number {
    const field = next && Blockly.blockRendering.Types.isField(next) && (next as Blockly.blockRendering.Field).field;
    return prev && field instanceof Blockly.FieldLabel && /^[,.;:]/.test(field.getText())
      ? COMMA_PX
      : super.getInRowSpacing_(prev, next);
  }
}
class Renderer extends zelos.Renderer {
  protected override makeRenderInfo_(block: Blockly.BlockSvg) {
    return new Info(this, block);
  }
  protected override makeConstants_() {
    return new Constants();
  }
  protected override makeDrawer_(block: Blockly.BlockSvg, info: Blockly.blockRendering.RenderInfo) {
    return new Drawer(block, info as Blockly.zelos.RenderInfo);
  }
}
Blockly.blockRendering.register('mossbell', Renderer);

const FAMILY = {
  light: { order: '#33413a', act: '#7a3f63', think: '#33547a', read: '#8a5a2b' },
  dark: { order: '#a7bcb0', act: '#d59abb', think: '#94b7e0', read: '#dcab77' }
};
const mix = (hex: string, to: string, t: number): string => {
  const [a, b] = [hex, to].map((h) => parseInt(h.slice(1), 16));
  return (
    '#' +
    [16, 8, 0]
      .map((s) =>
        Math.round(((a >> s) & 255) * (1 - t) + ((b >> s) & 255) * t)
          .toString(16)
          .padStart(2, '0')
      )
      .join('')
  );
};
export const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';
function theme(name: 'light' | 'dark'): Blockly.Theme {
  const ground = name === 'light' ? '#ffffff' : '#1a211d';
  const styles: Record<string, Blockly.Theme.BlockStyle> = {};
  for (const [section, { family }] of Object.entries(SECTIONS)) {
    const hue = FAMILY[name][family];
    styles[section] = {
      colourPrimary: mix(hue, ground, name === 'light' ? 0.91 : 0.8),
      colourSecondary: name === 'light' ? '#ffffff' : '#29332d',
      colourTertiary: mix(hue, ground, 0.55),
      hat: ''
    };
  }
  styles.literal =
    name === 'light'
      ? { colourPrimary: '#ffffff', colourSecondary: '#ffffff', colourTertiary: '#d6cda9', hat: '' }
      : { colourPrimary: '#35392b', colourSecondary: '#35392b', colourTertiary: '#6b6648', hat: '' };
  return Blockly.Theme.defineTheme(`mossbell-${name}`, {
    name: `mossbell-${name}`,
    blockStyles: styles,
    categoryStyles: {},
    componentStyles: {
      workspaceBackgroundColour: name === 'light' ? '#fbfaf5' : '#1a211d',
      scrollbarColour: name === 'light' ? '#b9c2ac' : '#4c594f',
      insertionMarkerColour: '#b5842a',
      insertionMarkerOpacity: 0.35
    },
    fontStyle: { family: FONT, weight: '500', size: 10.5 },
    startHats: false
  });
}
export const THEMES = { light: theme('light'), dark: theme('dark') };
