/** Fields of our own: numbers with a slider, a dial or a keyboard of notes; names that are made where they are needed. */
import * as Blockly from 'blockly/core';
import type { SlotSpec } from '../../../../../core/language/define.ts';
import { hertzOf } from '../../../../../core/language/notes.ts';
import { pixelAt, sizeOf } from '../../../../../core/language/pixels.ts';
import { pythonNow } from '../../../python/python.ts';
import { show, typedNumber } from '../../../../../core/language/values.ts';
import { LAMP_COLOURS, pixelColour } from '../../../ui/lamp-colours.ts';
import { definition } from '../../../../../core/language/catalogue.ts';
import { keyName } from './keys.ts';
import { raster, type Pixel } from './album.ts';
import { later, say, word } from '../../../../../core/words.ts';

/** Sliders, dials and keys of numbers: fetched beside the page, so that it is there sooner. Until then a number is typed. */
let instruments: typeof import('./instruments.ts') | undefined;
void import('./instruments.ts').then(
  (m) => (instruments = m),
  () => undefined
);

const open = <T>(field: Blockly.Field<T>, content: HTMLElement, closed: () => void = () => {}): void => {
  const escape = (e: KeyboardEvent): void => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    Blockly.DropDownDiv.hideIfOwner(field as Blockly.Field);
  };
  // wherever the focus is: a button that is drawn anew has lost it
  document.addEventListener('keydown', escape, true);
  Blockly.DropDownDiv.getContentDiv().append(content);
  Blockly.DropDownDiv.setColour('var(--card)', 'var(--rule)');
  Blockly.DropDownDiv.showPositionedByField(field as Blockly.Field, () => {
    document.removeEventListener('keydown', escape, true);
    content.remove();
    closed();
  });
};
/** A field, for asking where it sits. */
type Sitting = Pick<Blockly.Field, 'getSourceBlock'>;
/** What the number of a literal is for: the slot of the block that it sits in. */
export const hooks: {
  spec: (field: Sitting) => { spec: SlotSpec; slot: string; block: Blockly.Block } | undefined;
  /** an arithmetic expression was typed and shall become blocks */
  blocks: (field: Sitting, text: string) => void;
} = { spec: () => undefined, blocks: () => {} };

/** The x or y of a pixel's block: where the pixel is as both stand there, and both put at once. */
function pixelOf(
  field: NumberField,
  now: () => number
): { axis: 'x' | 'y'; at: () => Pixel; put: (at: Pixel, own: (n: number) => void) => void } | undefined {
  const sits = hooks.spec(field);
  const axis = sits?.spec.type === 'number' ? sits.spec.pixel : undefined;
  if (!sits || !axis) return undefined;
  const across = Object.entries(definition(sits.block.type).slots).find(
    ([name, s]) => name !== sits.slot && s.type === 'number' && s.pixel
  );
  const other = across && sits.block.getInputTargetBlock(across[0])?.getField('V');
  const literal = other instanceof NumberField ? other : undefined;
  const there = (): number => typedNumber(literal?.getText() ?? '') ?? 0;
  return {
    axis,
    at: () => (axis === 'x' ? { x: now(), y: there() } : { x: there(), y: now() }),
    put: (at, own) => {
      // both in one gesture; where the other holds a block, that block says it
      own(at[axis]);
      literal?.setValue(show(at[axis === 'x' ? 'y' : 'x']));
      Blockly.WidgetDiv.hide();
      Blockly.DropDownDiv.hideWithoutAnimation();
    }
  };
}
/** What is typed stays, letters too; what cannot be read as a number is marked. */
export class NumberField extends Blockly.FieldTextInput {
  constructor(
    value: string,
    readonly loose = false
  ) {
    super(value);
    if (!loose) this.setTooltip(say('A number. Type it, use the arrow keys, or drop a value block here.'));
  }
  private get isPitch(): boolean {
    const at = hooks.spec(this);
    return !!at && at.slot === 'pitch';
  }
  protected override doClassValidation_(value?: unknown): string {
    const typed = String(value ?? '');
    const text = this.loose && typedNumber(typed) === undefined ? typed : typed.trim();
    // a note name typed as a pitch becomes its number
    const pitch = this.isPitch ? hertzOf(text) : undefined;
    return pitch === undefined ? text : show(pitch);
  }
  protected override render_(): void {
    super.render_();
    const bad = !this.loose && typedNumber(this.getText()) === undefined;
    this.fieldGroup_?.classList.toggle('mb-bad', bad);
  }
  private sum: HTMLElement | undefined;
  protected override showEditor_(event?: Event): void {
    super.showEditor_(event, false);
    const at = hooks.spec(this);
    const put = (n: number): void => {
      this.setEditorValue_(show(n));
    };
    const now = (): number => typedNumber(this.getText()) ?? 0;
    const box = document.createElement('div');
    box.className = 'mb-instrument';
    const spec = at?.spec;
    let instrument: { element: HTMLElement; follow: (n: number) => void; close?: () => void } | undefined;
    if (spec?.type === 'number' && instruments) {
      const { angleDial, noteKeys, numberSlider, pixelGrid } = instruments;
      const pixel = pixelOf(this, now);
      if (this.isPitch) instrument = noteKeys(now(), put);
      else if (pixel) instrument = pixelGrid(pixel.at(), (at) => pixel.put(at, put), pixel.axis);
      else if (spec.unit === '°') instrument = angleDial(now(), put, spec);
      else instrument = numberSlider(now(), put, spec);
      box.append(instrument.element);
    }
    this.sum = document.createElement('div');
    this.sum.className = 'mb-sum';
    this.sum.hidden = true;
    box.append(this.sum);
    if (instrument) {
      Blockly.DropDownDiv.getContentDiv().append(box);
      Blockly.DropDownDiv.setColour('var(--card)', 'var(--rule)');
      const shut = (): void => {
        box.remove();
        instrument!.close?.();
      };
      Blockly.DropDownDiv.showPositionedByField(this as unknown as Blockly.Field, shut, undefined, false);
    } else document.body.append(box);
    const input = this.htmlInput_ as HTMLInputElement | null;
    const step = spec?.type === 'number' && !spec.whole && spec.max !== undefined && spec.max <= 10 ? 0.1 : 1;
    const keys = (e: KeyboardEvent): void => {
      if (e.key === 'Enter' && /[-+*/×÷−(]/.test(input!.value.slice(1)) && typedNumber(input!.value) === undefined) {
        const made = pythonNow()?.workedOut(input!.value);
        if (made !== undefined) {
          if (e.shiftKey) {
            e.preventDefault();
            e.stopPropagation();
            const text = input!.value;
            this.setEditorValue_(show(made));
            Blockly.WidgetDiv.hide();
            hooks.blocks(this, text);
            return;
          }
          this.setEditorValue_(show(made));
        }
      }
      const way = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
      if (!way || this.loose) return;
      e.preventDefault();
      e.stopPropagation();
      const next = Math.round((now() + way * step * (e.shiftKey ? 10 : 1)) * 1e6) / 1e6;
      put(next);
    };
    const typed = (): void => {
      instrument?.follow(now());
      const value = input!.value;
      const made = typedNumber(value) === undefined ? pythonNow()?.workedOut(value) : undefined;
      this.sum!.hidden = made === undefined;
      this.sum!.textContent =
        made === undefined ? '' : say('Enter: {show} · Shift Enter: as blocks', { show: show(made) });
    };
    input?.addEventListener('keydown', keys, true);
    input?.addEventListener('input', typed);
    // a widget that closes must take its box along where no drop-down holds it
    if (!instrument) {
      const gone = new MutationObserver(() => {
        if (!document.contains(input)) {
          box.remove();
          gone.disconnect();
        }
      });
      gone.observe(document.body, { childList: true, subtree: true });
    }
  }
  static override fromJson(options: Blockly.FieldTextInputFromJsonConfig): NumberField {
    return new NumberField(String(options.text ?? ''));
  }
}

/** Text, in quote marks. */
export class TextField extends Blockly.FieldTextInput {
  protected override getText_(): string {
    return this.isBeingEdited_ ? super.getText_()! : `“${String(this.value_ ?? '')}”`;
  }
}

/** How a name is asked for: in an empty slot, in its list, and where a new one can be made. */
const ASKED = {
  variable: [later('choose a variable'), later('Find a variable'), later('Find, or name a new variable')],
  list: [later('choose a list'), later('Find a list'), later('Find, or name a new list')],
  routine: [later('choose a routine'), later('Find a routine'), later('Find, or name a new routine')],
  input: [later('choose an input'), later('Find an input'), later('Find an input')],
  message: [later('choose a message'), later('Find a message'), later('Find, or name a new message')],
  name: [later('choose a name'), later('Find a name'), later('Find, or type a new name')],
  key: [later('choose a key'), later('Find a key'), later('Find a key')]
} as const;
export type Asked = keyof typeof ASKED;
export type Choices = {
  what: Asked;
  list: () => [name: string, value: string][];
  make?: (name: string) => string;
};
/** A name of the program: chosen from a list, or typed as a new one right there. */
export class NameField extends Blockly.FieldDropdown {
  constructor(
    value: string,
    private readonly choices: Choices,
    private readonly nameFor: (value: string) => string | undefined
  ) {
    super(() => [['', '']]);
    this.setValue(value);
  }
  protected override doClassValidation_(value?: unknown): string | null {
    return value === undefined || value === null ? null : String(value);
  }
  protected override doValueUpdate_(value: string): void {
    this.value_ = value;
    // the first value is set by the base class, before there is anything to ask
    const name = this.nameFor?.(value) ?? (value ? say('(gone)') : word(ASKED[this.choices?.what ?? 'name'][0]));
    (this as unknown as { selectedOption: unknown }).selectedOption = [name, value];
    this.isDirty_ = true;
  }
  refresh(): void {
    const before = this.getText();
    this.doValueUpdate_(String(this.getValue() ?? ''));
    // what is drawn again pushes its neighbours away, and that is a change of the program
    if (this.getText() !== before) this.forceRerender();
  }
  protected override showEditor_(): void {
    const { what, make } = this.choices;
    const box = document.createElement('div');
    box.className = 'mb-names';
    const input = document.createElement('input');
    input.className = 'field';
    input.placeholder = word(ASKED[what][make ? 2 : 1]);
    input.setAttribute('aria-label', input.placeholder);
    input.maxLength = 60;
    const list = document.createElement('div');
    list.setAttribute('role', 'listbox');
    list.setAttribute('aria-label', say('Names: {name}', { name: word(what) }));
    const choose = (value: string): void => {
      Blockly.DropDownDiv.hideWithoutAnimation();
      Blockly.Events.setGroup(true);
      this.setValue(value);
      Blockly.Events.setGroup(false);
    };
    const all = this.choices.list();
    const draw = (): void => {
      const text = input.value.trim();
      const found = all.filter(([name]) => name.toLowerCase().includes(text.toLowerCase()));
      list.replaceChildren(
        ...found.map(([name, value]) => {
          const option = document.createElement('button');
          option.type = 'button';
          option.setAttribute('role', 'option');
          option.setAttribute('aria-selected', String(value === this.getValue()));
          option.textContent = name;
          option.onclick = () => choose(value);
          return option;
        })
      );
      if (make && text && !all.some(([name]) => name === text)) {
        const option = document.createElement('button');
        option.type = 'button';
        option.setAttribute('role', 'option');
        option.className = 'mb-new';
        option.textContent = say('New: {text}', { text });
        option.onclick = () => choose(make(text));
        list.append(option);
      }
    };
    input.oninput = draw;
    const options = (): HTMLButtonElement[] => [...list.querySelectorAll('button')];
    box.onkeydown = (e) => {
      e.stopPropagation();
      if (e.key === 'Enter' && e.target === input) {
        e.preventDefault();
        const exact = all.find(([name]) => name === input.value.trim());
        if (exact) choose(exact[1]);
        else (options().find((o) => o.className === 'mb-new') ?? options()[0])?.click();
      } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
        e.preventDefault();
        const at = options().indexOf(document.activeElement as HTMLButtonElement);
        (options()[at + (e.key === 'ArrowDown' ? 1 : -1)] ?? input).focus();
      }
    };
    draw();
    box.append(input, list);
    open(this as unknown as Blockly.Field, box);
    input.focus();
  }
}

/** A key of the computer: press it. */
export class KeyField extends NameField {
  constructor(value: string) {
    super(value, { what: 'key', list: () => [] }, (v) => v);
  }
  protected override showEditor_(): void {
    const box = document.createElement('div');
    box.className = 'mb-names';
    box.tabIndex = 0;
    box.textContent = say('Press the key: a letter, a digit, Space, Enter or an arrow.');
    box.onkeydown = (e) => {
      e.preventDefault();
      e.stopPropagation();
      const name = keyName(e.key);
      if (!name)
        box.textContent = say('"{key}" cannot be used. A letter, a digit, Space, Enter or an arrow can.', {
          key: e.key
        });
      else {
        Blockly.DropDownDiv.hideWithoutAnimation();
        this.setValue(name);
      }
    };
    open(this as unknown as Blockly.Field, box);
    box.focus();
  }
}
/** A colour by its name, with a swatch of it. */
export class ColourField extends Blockly.FieldDropdown {
  constructor(options: readonly string[], value: string) {
    super(() =>
      options.map((o): Blockly.MenuOption => {
        const row = document.createElement('span');
        row.className = 'mb-swatch';
        row.style.setProperty('--c', LAMP_COLOURS[o] ?? o);
        row.textContent = row.title = row.ariaLabel = word(o);
        return [row, o];
      })
    );
    this.setValue(value);
  }
  private swatch: SVGRectElement | undefined;
  protected override render_(): void {
    super.render_();
    this.swatch ??= Blockly.utils.dom.createSvgElement(
      'rect',
      { rx: 2, height: 3, y: 19, x: 3 },
      this.fieldGroup_
    ) as SVGRectElement;
    this.swatch.setAttribute('width', String(Math.max(0, this.size_.width - 18)));
    this.swatch.style.setProperty('fill', LAMP_COLOURS[String(this.value_)] ?? String(this.value_), 'important');
  }
}

/** How large a picture is drawn in its block, at the most. */
const LARGE = { wide: 40, high: 34 };
/** A picture: drawn small in the block, painted in a drop-down. */
export class PictureField extends Blockly.Field<string> {
  override EDITABLE = true;
  override SERIALIZABLE = true;
  private back: SVGRectElement | undefined;
  private squares: SVGRectElement[] = [];
  override initView(): void {
    this.back = Blockly.utils.dom.createSvgElement(
      'rect',
      { rx: 3, fill: '#26352c' },
      this.fieldGroup_
    ) as SVGRectElement;
    this.back.style.cursor = 'pointer';
    this.back.style.setProperty('fill', '#26352c', 'important');
    this.fieldGroup_?.setAttribute('role', 'button');
    this.fieldGroup_?.setAttribute('aria-label', say('painted picture'));
  }
  /** columns, rows, and pixels of the screen from one to the next */
  private get grid(): { columns: number; rows: number; pitch: number } {
    const { columns, rows } = sizeOf(String(this.value_ || '.'));
    return { columns, rows, pitch: Math.min(4, LARGE.wide / columns, LARGE.high / rows) };
  }
  protected override updateSize_(): void {
    const { columns, rows, pitch } = this.grid;
    this.size_ = new Blockly.utils.Size(columns * pitch + 6, rows * pitch + 6);
  }
  protected override render_(): void {
    this.updateSize_();
    const { columns, rows, pitch } = this.grid;
    this.back?.setAttribute('width', String(this.size_.width));
    this.back?.setAttribute('height', String(this.size_.height));
    while (this.squares.length > columns * rows) this.squares.pop()!.remove();
    while (this.squares.length < columns * rows)
      this.squares.push(
        Blockly.utils.dom.createSvgElement('rect', { 'pointer-events': 'none' }, this.fieldGroup_) as SVGRectElement
      );
    const { colours } = raster();
    this.squares.forEach((s, i) => {
      const [x, y] = [i % columns, Math.floor(i / columns)];
      const at = { x: 3 + x * pitch, y: 3 + y * pitch, width: pitch * 0.75, height: pitch * 0.75, rx: pitch / 4 };
      for (const [name, value] of Object.entries(at)) s.setAttribute(name, String(value));
      s.style.setProperty('fill', pixelColour(pixelAt(String(this.value_ ?? ''), x, y), colours), 'important');
    });
  }
  override getText_(): string {
    return say('painted picture');
  }
  protected override showEditor_(): void {
    // fetched when the first picture is painted
    void import('./painter.ts').then(({ painter }) => {
      if (this.disposed) return;
      const tool = painter(String(this.value_), (picture) => this.setValue(picture));
      open(this, tool.element, tool.close);
      tool.focus();
    });
  }
  static override fromJson(options: { value?: string } & Blockly.FieldConfig): PictureField {
    return new PictureField(options.value ?? '');
  }
}
