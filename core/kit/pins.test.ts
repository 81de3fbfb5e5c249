/** Which lead of which part hangs on which pin, and what is told of a table that cannot be. */
import { describe, expect, it } from 'vitest';
import { FONT } from '../language/letters.ts';
import { barrow, hauler, kits, saucer, trowel, type Kit } from './kit.ts';
import { displayOf } from './display.ts';
import { pinProblems, printPins, wired } from './pins.ts';

const says = (kit: Kit): string[] => [...new Set(pinProblems(kit).map((p) => p.says))];
const MOTORS = { 'J1.forward': 2, 'J1.back': 3, 'J2.power': 4, 'J2.direction': 5 };
const REST = {
  'J4.signal': 6,
  'J5.signal': 7,
  'J7.trigger': 8,
  'J7.echo': 9,
  'J8.signal': 26,
  'J9.signal': 27,
  'Dot.signal': 10,
  'Bar.signal': 11
};

describe('the pins of a kit', () => {
  it('are asked of every part, button and what is built in, and no two leads have one name', () => {
    for (const kit of Object.values(kits)) {
      const leads = wired(kit).flatMap((w) => w.leads.map((lead) => lead.key));
      expect(new Set(leads).size).toBe(leads.length);
      for (const part of kit.parts) expect(wired(kit).some((w) => w.of === part.socket)).toBe(true);
      expect(leads).toEqual(expect.arrayContaining(['Dot.signal', 'Bar.signal', 'sounder.signal']));
    }
    expect(wired(trowel).map((w) => w.of)).toEqual(expect.arrayContaining(['edge left', 'light', 'moisture', 'wire']));
  });
  it('are whole with two inputs a motor, or power and direction; what is not needed may be left out', () => {
    expect(says(barrow)[0]).toBe(
      'No pins yet: J1 left wheel, J2 right wheel, J4 striker, J5 pan, J7 nose, J8 left, J9 right, button Dot, button Bar.'
    );
    expect(says({ ...barrow, pins: { ...MOTORS, ...REST } })).toEqual([]);
    const { 'J1.back': _, ...one } = MOTORS;
    expect(says({ ...barrow, pins: { ...one, ...REST } })).toEqual(['No pins yet: J1 left wheel.']);
    // pins of parts that were unplugged since do no harm
    const unplugged = { ...barrow, parts: barrow.parts.filter((p) => p.socket !== 'J4'), pins: { ...MOTORS, ...REST } };
    expect(says({ ...unplugged, pins: { ...unplugged.pins, 'J4.signal': 2 } })).toEqual([]);
  });
  it('that are given twice are told of each lead, with all that share them', () => {
    const twice = pinProblems({ ...barrow, pins: { ...MOTORS, ...REST, 'lamps.data': 2, 'J9.signal': 26 } });
    expect(twice.map((p) => [p.key, p.says])).toEqual([
      ['J1.forward', 'Pin 2 is given twice: J1 left wheel, forward; lamps, data.'],
      ['lamps.data', 'Pin 2 is given twice: J1 left wheel, forward; lamps, data.'],
      ['J8.signal', 'Pin 26 is given twice: J8 left, signal; J9 right, signal.'],
      ['J9.signal', 'Pin 26 is given twice: J8 left, signal; J9 right, signal.']
    ]);
  });
  it('name what cannot be', () => {
    const cannot = (kit: Kit): string[] => wired(kit).flatMap((w) => (w.cannot ? [`${w.of}: ${w.cannot}`] : []));
    expect(cannot(saucer)).toEqual(expect.arrayContaining([expect.stringMatching(/^rim: it cannot be felt/)]));
    const screen = { ...barrow, display: displayOf('screen', barrow.display!) };
    expect(cannot(screen)).toEqual(['display: a screen is not driven yet; use addressable lamps']);
    expect(cannot(hauler)).toEqual([]);
  });
  it('are printed for the board, with the kit’s own measures', () => {
    const text = printPins({ ...barrow, pins: { ...MOTORS, 'J99.signal': 1 } }, 0.4, FONT);
    expect(text).toContain('DEVICE = "barrow"\nFULL_SPEED = 0.4');
    expect(text).toContain('ACCELERATION = 0.6');
    expect(text).toContain('    "J1": {"type": "motor", "name": "left wheel", "mirrored": True},');
    expect(text).toContain('    "J8": {"type": "line", "name": "left", "threshold": 50},');
    expect(text).toContain('    "J2.direction": 5,');
    expect(text).not.toContain('J99');
    expect(text).toContain('DISPLAY = (7, 5)');
    expect(text).toContain('LAMPS = ("left", "right", )');
  });
});
