/** Fields of our own: a number that is never clamped silently, a painted picture. */
import * as Blockly from 'blockly/core';
import { hertzOf } from '../../../../../core/language/notes.ts';
import { show, typedNumber } from '../../../../../core/language/values.ts';

/** What is typed stays, letters too; what cannot be read as a number is marked. */
export class NumberField extends Blockly.FieldTextInput {
  constructor(
    value: string,
    readonly loose = false
  ) {
    super(value);
    if (!loose) this.setTooltip('A number. Type it, or drop a value block here.');
  }
  protected override doClassValidation_(value?: unknown): string {
    const text = String(value ?? '').trim();
    // a note name typed as a pitch becomes its number
    const parent = this.getSourceBlock()?.getParent();
    const pitch =
      parent?.type === 'sound.tone' && parent.getInputTargetBlock('pitch') === this.getSourceBlock()
        ? hertzOf(text)
        : undefined;
    return pitch === undefined ? text : show(pitch);
  }
  protected override render_(): void {
    super.render_();
    const bad = !this.loose && typedNumber(this.getText()) === undefined;
    this.fieldGroup_?.classList.toggle('mb-bad', bad);
  }
  static override fromJson(options: Blockly.FieldTextInputFromJsonConfig): NumberField {
    return new NumberField(String(options.text ?? ''));
  }
}

const CELL = 4;
const W = 7;
const H = 5;
/** A 7 x 5 picture: drawn small in the block, painted in a drop-down. */
export class PictureField extends Blockly.Field<string> {
  override EDITABLE = true;
  override SERIALIZABLE = true;
  private squares: SVGRectElement[] = [];
  override initView(): void {
    const back = Blockly.utils.dom.createSvgElement(
      'rect',
      { width: W * CELL + 6, height: H * CELL + 6, rx: 3, fill: '#26352c' },
      this.fieldGroup_
    );
    back.style.cursor = 'pointer';
    back.style.setProperty('fill', '#26352c', 'important');
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++)
        this.squares.push(
          Blockly.utils.dom.createSvgElement(
            'rect',
            { x: 3 + x * CELL, y: 3 + y * CELL, width: CELL - 1, height: CELL - 1, rx: 1, 'pointer-events': 'none' },
            this.fieldGroup_
          ) as SVGRectElement
        );
    this.fieldGroup_?.setAttribute('role', 'button');
  }
  protected override updateSize_(): void {
    this.size_ = new Blockly.utils.Size(W * CELL + 6, H * CELL + 6);
  }
  protected override render_(): void {
    this.updateSize_();
    const flat = String(this.value_ ?? '').replaceAll(' ', '');
    this.squares.forEach((s, i) => s.style.setProperty('fill', flat[i] === '#' ? '#ffcf5a' : '#43564a', 'important'));
  }
  override getText_(): string {
    return 'painted picture';
  }
  protected override showEditor_(): void {
    const grid = document.createElement('div');
    grid.className = 'mb-painter';
    const flat = [...String(this.value_).replaceAll(' ', '')];
    const put = (): void => {
      this.setValue(Array.from({ length: H }, (_, y) => flat.slice(y * W, (y + 1) * W).join('')).join(' '));
    };
    let brush: string | undefined;
    const buttons = flat.map((_, i) => {
      const b = document.createElement('button');
      const x = i % W;
      const y = Math.floor(i / W);
      const show = (): void => {
        b.setAttribute('aria-pressed', String(flat[i] === '#'));
      };
      b.type = 'button';
      b.setAttribute('aria-label', `x ${x}, y ${y}`);
      b.title = `x ${x}, y ${y}`;
      const paint = (value: string): void => {
        flat[i] = value;
        show();
        put();
      };
      b.onpointerdown = (e) => {
        b.releasePointerCapture(e.pointerId);
        brush = flat[i] === '#' ? '.' : '#';
        paint(brush);
      };
      b.onpointerenter = (e) => {
        if (e.buttons && brush) paint(brush);
      };
      b.onkeydown = (e) => {
        if (e.key === ' ' || e.key === 'Enter') {
          e.preventDefault();
          paint(flat[i] === '#' ? '.' : '#');
        }
        const to = { ArrowRight: i + 1, ArrowLeft: i - 1, ArrowDown: i + W, ArrowUp: i - W }[e.key];
        if (to !== undefined) {
          e.preventDefault();
          buttons[to]?.focus();
        }
      };
      show();
      grid.append(b);
      return b;
    });
    const div = Blockly.DropDownDiv.getContentDiv();
    div.append(grid);
    Blockly.DropDownDiv.setColour('#ffffff', '#d9dccb');
    Blockly.DropDownDiv.showPositionedByField(this, () => grid.remove());
    buttons[0].focus();
  }
  static override fromJson(options: { value?: string } & Blockly.FieldConfig): PictureField {
    return new PictureField(options.value ?? '');
  }
}
