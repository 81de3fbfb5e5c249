// @vitest-environment jsdom
/** What stands under a number while it is typed, the painter, and the fields themselves. */
import * as Blockly from 'blockly/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { barrow } from '../../../../../core/kit/kit.ts';
import { darkOf, withPixel } from '../../../../../core/language/pixels.ts';
import { b, program, start } from '../../../../../core/testing/build.ts';
import { around, defineBlocks, LooseDropdown } from './blocks.ts';
import { bringIn } from './convert.ts';
import { hooks, NameField, NumberField } from './fields.ts';
import { angleDial, noteKeys, numberSlider, pixelGrid, sliderRange } from './instruments.ts';
import { album, raster, USUAL } from './album.ts';
import { displayOf } from '../../../../../core/kit/display.ts';
import { painter, thumb } from './painter.ts';

const DARK = darkOf(raster());

const key = (text: string) => new KeyboardEvent('keydown', { key: text, bubbles: true });
/** jsdom knows no pointers: what is to happen at one is called by its name. */
function point(element: Element, type: 'pointerdown' | 'pointerenter', init: object = {}): void {
  const event = Object.assign(new Event(type), { buttons: 0, pointerId: 1, ...init }) as PointerEvent;
  (element as HTMLElement)[`on${type}`]!(event);
}
/** the drawing board of a page lacks what belongs to a pointer */
beforeEach(() => {
  Element.prototype.releasePointerCapture = () => {};
  Element.prototype.setPointerCapture = () => {};
  Object.assign(album, { named: () => ({}), name: () => {}, point: () => {}, display: () => USUAL, onFace: undefined });
});

describe('a slider', () => {
  it('goes over the range of its slot, or as far as is of use around what is usual', () => {
    expect(sliderRange({ min: 0, max: 100, default: 45 })).toEqual([0, 100, 1]);
    expect(sliderRange({ min: 0, max: 10, default: 1 })).toEqual([0, 10, 0.1]);
    expect(sliderRange({ default: 20 })).toEqual([-80, 80, 1]);
    expect(sliderRange({ min: 0, max: 36000, default: 1 })).toEqual([0, 10, 0.1]);
  });
  it('gives what it is pulled to, follows what is typed, and says from where to where', () => {
    const put = vi.fn();
    const { element, follow } = numberSlider(30, put, { min: 0, max: 100, default: 45, unit: '%' });
    const input = element.querySelector('input')!;
    expect([input.value, input.min, input.max, input.getAttribute('aria-label')]).toEqual([
      '30',
      '0',
      '100',
      'Slider from 0 to 100 %'
    ]);
    input.value = '70';
    input.dispatchEvent(new Event('input'));
    expect(put).toHaveBeenCalledWith(70);
    follow(12);
    expect(input.value).toBe('12');
    expect(numberSlider(1, put, { min: 0, max: 6, default: 2, whole: true }).element.querySelector('input')!.step).toBe(
      '1'
    );
  });
});
describe('a dial', () => {
  const drag = (range: object, x: number, y: number): number => {
    const put = vi.fn();
    const svg = angleDial(0, put, { default: 0, ...range }).element.querySelector('svg')!;
    svg.getBoundingClientRect = () => ({ x: 0, y: 0, width: 148, height: 148 }) as DOMRect;
    point(svg, 'pointerdown', { clientX: 74 + x, clientY: 74 + y });
    return put.mock.calls[0][0] as number;
  };
  it('has 0 at the top and grows clockwise, in steps of five degrees', () => {
    expect([drag({}, 0, -50), drag({}, 50, 0), drag({}, 0, 50), drag({}, -50, 0)]).toEqual([0, 90, 180, 270]);
    expect(drag({}, 20, -50)).toBe(20);
  });
  it('of a servo ends at half a turn', () => {
    expect([drag({ max: 180 }, -30, 40), drag({ max: 180 }, -30, -40)]).toEqual([180, 0]);
  });
  it('draws its sweep the way it turns, and no more than once round', () => {
    const { element, follow } = angleDial(90, () => {}, { default: 0 });
    const sweep = () => element.querySelector('.sweep')!.getAttribute('d')!;
    expect(sweep()).toContain('0 0,1 22,');
    follow(-90);
    expect(sweep()).toContain('0 0,0 -22,');
    follow(270);
    expect(sweep()).toContain('0 1,1 ');
    follow(4000);
    expect(sweep()).not.toContain('NaN');
  });
});
describe('keys of notes', () => {
  it('give the pitch of a note, and say how far a pitch is from one', () => {
    const put = vi.fn();
    const { element, follow } = noteKeys(440, put);
    const says = element.querySelector('output')!;
    expect([element.querySelectorAll('button').length, says.textContent]).toEqual([36, 'A4 · 440 Hz']);
    expect(element.querySelector('[aria-pressed="true"]')!.getAttribute('data-note')).toBe('A4');
    element.querySelector<HTMLButtonElement>('[data-note="C5"]')!.click();
    expect(put.mock.calls[0][0]).toBeCloseTo(523.25, 1);
    // a semitone is 100 cents of a twelfth of an octave: 450 Hz is 1200 x log2(450/440) above A4
    follow(450);
    expect(says.textContent).toBe('A4 +39 cents · 450 Hz');
    expect(element.querySelector('[aria-pressed="true"]')).toBeNull();
    follow(0);
    expect(says.textContent).toBe('A4 +39 cents · 450 Hz');
  });
});
describe('the small grid of a pixel', () => {
  it('takes a place by a click, shows what is typed, and lights the face while it is pointed at', () => {
    const pointed: unknown[] = [];
    album.point = (at) => pointed.push(at);
    const put = vi.fn();
    const { element, follow, close } = pixelGrid({ x: 2, y: 1 }, put, 'y');
    const cell = (x: number, y: number) => element.querySelector<HTMLButtonElement>(`[aria-label="x ${x}, y ${y}"]`)!;
    const pressed = () => element.querySelector('[aria-pressed="true"]')?.getAttribute('aria-label');
    expect([pressed(), pointed]).toEqual(['x 2, y 1', [{ x: 2, y: 1 }]]);
    point(cell(6, 4), 'pointerenter');
    expect([pointed.at(-1), element.querySelector('output')!.textContent]).toEqual([{ x: 6, y: 4 }, 'x 6, y 4']);
    cell(6, 4).click();
    expect(put).toHaveBeenCalledWith({ x: 6, y: 4 });
    follow(3);
    expect(pressed()).toBe('x 2, y 3');
    follow(6);
    expect([pressed(), element.querySelector('output')!.textContent]).toEqual([
      undefined,
      'x 2, y 6: beyond the display'
    ]);
    album.onFace!({ x: 0, y: 0 });
    expect(cell(0, 0).className).toContain('faced');
    close();
    expect([album.onFace, pointed.at(-1)]).toEqual([undefined, undefined]);
  });
  it('marks what a display that is mounted turned does not show', () => {
    album.display = () => ({ ...USUAL, turnedDeg: 90 });
    const { element } = pixelGrid({ x: 0, y: 0 }, () => {}, 'x');
    expect(element.querySelectorAll('.unseen')).toHaveLength(10);
    expect(element.querySelector('output')!.textContent).toBe(
      'x 0, y 0: not seen, the display is mounted turned by 90°'
    );
  });
});
describe('the painter', () => {
  const open = (picture: string) => {
    const put = vi.fn<(picture: string) => void>();
    const tool = painter(picture, put);
    const named = (name: string) => tool.element.querySelector<HTMLElement>(`[aria-label="${name}"]`)!;
    return { ...tool, put, named, last: () => put.mock.calls.at(-1)![0] };
  };
  it('paints with the pointer and with keys, in a level of its own, and rubs out what is there', () => {
    const { named, last, element } = open(DARK);
    point(named('x 3, y 2'), 'pointerdown');
    expect(last()).toBe(withPixel(DARK, 3, 2, '#'));
    point(named('x 4, y 2'), 'pointerenter', { buttons: 1 });
    expect(last()).toBe(withPixel(withPixel(DARK, 3, 2, '#'), 4, 2, '#'));
    // over others without a button nothing is painted
    point(named('x 5, y 2'), 'pointerenter');
    expect(last()).toBe(withPixel(withPixel(DARK, 3, 2, '#'), 4, 2, '#'));
    named('x 3, y 2').dispatchEvent(key(' '));
    expect(last()).toBe(withPixel(DARK, 4, 2, '#'));
    const range = element.querySelector<HTMLInputElement>('[type=range]')!;
    range.value = '50';
    range.dispatchEvent(new Event('input'));
    named('x 0, y 0').dispatchEvent(key('Enter'));
    expect(last()).toBe(withPixel(withPixel(DARK, 4, 2, '#'), 0, 0, '+'));
    expect(named('x 0, y 0, 50 %').getAttribute('aria-pressed')).toBe('true');
  });
  it('walks by arrow keys', () => {
    const { element, named, focus } = open(DARK);
    document.body.append(element);
    focus();
    for (const [k, where] of [
      ['ArrowRight', 'x 1, y 0'],
      ['ArrowDown', 'x 1, y 1'],
      ['ArrowLeft', 'x 0, y 1'],
      ['ArrowUp', 'x 0, y 0']
    ] as const) {
      document.activeElement!.dispatchEvent(key(k));
      expect(document.activeElement).toBe(named(where));
    }
    element.remove();
  });
  it('shifts, mirrors, inverts, clears and takes a picture that was named', () => {
    album.named = () => ({ dew: withPixel(DARK, 6, 4, '+') });
    const kept = vi.fn();
    album.name = kept;
    const { named, last, element } = open(withPixel(DARK, 1, 0, '#'));
    const does = (name: string): string => (named(name).click(), last());
    expect(does('Shift left')).toBe(withPixel(DARK, 0, 0, '#'));
    expect(does('Shift left')).toBe(withPixel(DARK, 6, 0, '#'));
    expect(does('Shift up')).toBe(withPixel(DARK, 6, 4, '#'));
    expect(does('Mirror sideways')).toBe(withPixel(DARK, 0, 4, '#'));
    expect(does('Turn upside down')).toBe(withPixel(DARK, 0, 0, '#'));
    expect(does('Shift right')).toBe(withPixel(DARK, 1, 0, '#'));
    expect(does('Shift down')).toBe(withPixel(DARK, 1, 1, '#'));
    expect(does('Invert: lit becomes dark')).toBe(withPixel('####### ####### ####### ####### #######', 1, 1, '.'));
    expect(does('Clear: all dark')).toBe(DARK);
    expect(does('Take: dew')).toBe(withPixel(DARK, 6, 4, '+'));
    const form = element.querySelector('form')!;
    const name = form.querySelector('input')!;
    form.dispatchEvent(new Event('submit', { cancelable: true }));
    expect(kept).not.toHaveBeenCalled();
    name.value = ' rain ';
    form.dispatchEvent(new Event('submit', { cancelable: true }));
    expect(kept).toHaveBeenCalledWith('rain', withPixel(DARK, 6, 4, '+'));
  });
  it('draws a picture as small as a finger nail, each lamp as bright as it is', () => {
    const drawn = thumb(withPixel(withPixel(DARK, 0, 0, '#'), 1, 0, '+'));
    const all = [...drawn.matchAll(/fill="(?:color-mix\(in srgb, (#\w+) ([\d.]+)%[^"]*|(#\w+))"/g)].slice(1);
    expect(all).toHaveLength(35);
    expect(all.slice(0, 3).map((m) => m[3] ?? `${m[1]} ${m[2]}`)).toEqual(['#ffcf5a 100', '#ffcf5a 60', '#43564a']);
  });
  it('paints in colours, as large as the display is, and in no levels where that has none', () => {
    album.display = () => displayOf('screen', { at: USUAL.at, turnedDeg: 0 });
    const { named, last, element } = open('#...... ....... ....... ....... .......');
    const rows = () => last().split(' ');
    expect(element.querySelectorAll('.grid button')).toHaveLength(144);
    expect(element.querySelector('[type=range]')).toBeNull();
    named('Brush: blue').click();
    point(named('x 11, y 11'), 'pointerdown');
    expect([rows().length, rows()[11].length, rows()[11][11], rows()[0][0]]).toEqual([12, 12, 'b', '#']);
    expect(named('x 11, y 11, blue').getAttribute('aria-pressed')).toBe('true');
    named('Take: bell').click();
    expect(rows()[3]).toBe('.....#......');
    album.display = () => ({ ...USUAL, type: 'matrix', columns: 4, rows: 4, levels: 2 }) as typeof USUAL;
    const plain = open('');
    expect(plain.element.querySelectorAll('.grid button, [type=range], .swatch')).toHaveLength(16);
  });
});

describe('fields', () => {
  beforeEach(() => {
    around.kit = barrow;
    around.program = program();
    defineBlocks();
  });
  it('of numbers keep what is typed, and make a pitch of a note where a pitch is asked', () => {
    const field = new NumberField('1');
    const typed = (text: string): string => {
      field.setValue(text);
      return String(field.getValue());
    };
    expect([typed('2,5'), typed(' 7 '), typed('abc'), typed('A4')]).toEqual(['2,5', '7', 'abc', 'A4']);
    hooks.spec = () => ({ spec: { type: 'number', default: 440 }, slot: 'pitch', block: undefined as never });
    expect([typed('A4'), typed('c5'), typed('500')]).toEqual(['440', '523.25', '500']);
    hooks.spec = () => undefined;
    const loose = new NumberField('a', true);
    loose.setValue('drop ');
    expect(loose.getValue()).toBe('drop ');
    loose.setValue(' 5 ');
    expect(loose.getValue()).toBe('5');
  });
  it('of parts and names show the name that is behind a value now, and are drawn anew only when that is another', () => {
    let name = 'Nose';
    const list = new LooseDropdown(() => [[name, '10']]);
    list.setValue('10');
    const drawn = vi.spyOn(list, 'forceRerender');
    list.refresh();
    expect([list.getText(), drawn.mock.calls.length]).toEqual(['Nose', 0]);
    name = 'snout';
    list.refresh();
    expect([list.getText(), drawn.mock.calls.length]).toEqual(['snout', 1]);
    // a part that was unplugged stays what it was
    list.setValue('99');
    expect([list.getValue(), list.getText()]).toEqual(['99', '99']);
    let known: Record<string, string> = { v1: 'count' };
    const field = new NameField(
      'v1',
      { what: 'variable', list: () => Object.entries(known).map(([v, n]) => [n, v]) },
      (v) => known[v]
    );
    const redrawn = vi.spyOn(field, 'forceRerender');
    field.refresh();
    expect([field.getText(), redrawn.mock.calls.length]).toEqual(['count', 0]);
    known = { v1: 'drops' };
    field.refresh();
    expect([field.getText(), redrawn.mock.calls.length]).toEqual(['drops', 1]);
    known = {};
    field.refresh();
    expect(field.getText()).toBe('(gone)');
    field.setValue('');
    expect(field.getText()).toBe('choose a variable');
  });
  it('of a block on the sheet stand for its slots', () => {
    const ws = Object.assign(new Blockly.Workspace(), {
      setResizesEnabled: () => {}
    }) as unknown as Blockly.WorkspaceSvg;
    const p = program(start(b('motor.run', { motor: 'J2', power: 30 })));
    around.program = p;
    bringIn(ws, p);
    const block = ws.getBlockById(p.stacks[0].steps[1].id)!;
    expect(block.getField('motor')!.getText()).toBe('right wheel');
    expect(block.getInputTargetBlock('power')!.getField('V')!.getValue()).toBe('30');
  });
});
