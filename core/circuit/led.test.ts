import { describe, expect, it } from 'vitest';
import {
  BOARD_V,
  currentOf,
  E24,
  FORWARD_V,
  LED_COLOURS,
  ledCurrent,
  nextE24,
  PIN_A,
  PIN_OHM,
  RATED_A,
  rightOhm,
  THERMAL_V
} from './led.ts';

/** Shockley's law with the same n and Is, solved here by halving: another way than the one that is tested. */
function byHalving(volts: number, ohm: number, forwardV: number): number {
  const nVt = 2 * THERMAL_V;
  const saturation = RATED_A / (Math.exp(forwardV / nVt) - 1);
  let [low, high] = [0, volts];
  for (let i = 0; i < 200; i++) {
    const v = (low + high) / 2;
    if (v + ohm * saturation * (Math.exp(v / nVt) - 1) > volts) high = v;
    else low = v;
  }
  return (volts - low) / ohm;
}

describe('the current of an LED', () => {
  it('solves the loop U = I R + V with the diode of Shockley, however large the resistor', () => {
    for (const forward of Object.values(FORWARD_V))
      for (const volts of [0.5, 1.5, 3.3, 5, 12])
        for (const ohm of [1, 25, 47, 150, 1000, 1e5, 1e8, 1e12]) {
          const exact = byHalving(volts, ohm, forward);
          // V is known to 1e-12: I to that over R, and to six digits
          const off = Math.abs(ledCurrent(volts, ohm, forward) - exact);
          expect(off, `${forward} V, ${volts} V, ${ohm} ohm`).toBeLessThan(1e-6 * exact + 2e-12 / Math.min(ohm, 1));
        }
  });
  it('is none without a voltage, or with one the wrong way round', () => {
    expect(ledCurrent(0, 100, 1.8)).toBe(0);
    expect(ledCurrent(-3, 100, 1.8)).toBe(0);
    expect(ledCurrent(-3, 0, 1.8)).toBe(0);
  });
  it('without a resistor is that of the diode alone, and nothing at no voltage', () => {
    expect(ledCurrent(1.8, 0, 1.8)).toBeCloseTo(RATED_A, 12);
    expect(ledCurrent(1e-9, 0, 1.8)).toBeLessThan(1e-20);
    // beyond one volt above its own it is not followed any further
    expect(ledCurrent(9, 0, 1.8)).toBe(ledCurrent(2.8, 0, 1.8));
  });
});

describe('a bare LED on the board', () => {
  it('has the pin’s own resistance before it, and its colour’s voltage', () => {
    for (const colour of LED_COLOURS)
      expect(currentOf({ ohm: 100, colour })).toBe(ledCurrent(BOARD_V, 100 + PIN_OHM, FORWARD_V[colour]));
    expect(currentOf({ ohm: 100 })).toBe(currentOf({ ohm: 100, colour: 'red' }));
    expect(currentOf({ ohm: 100, colour: 'blue' })).toBeLessThan(currentOf({ ohm: 100 })!);
    expect(currentOf({})).toBeUndefined();
  });
  it('is given a resistor for about half of its rated current, which no pin minds', () => {
    for (const colour of LED_COLOURS) {
      const ampere = currentOf({ ohm: rightOhm(colour), colour })!;
      expect(ampere, colour).toBeGreaterThan(0.4 * RATED_A);
      expect(ampere, colour).toBeLessThan(PIN_A);
      expect(E24.map((e) => e / 10)).toContain(
        Number((rightOhm(colour) / 10 ** Math.floor(Math.log10(rightOhm(colour)))).toPrecision(2))
      );
    }
    expect(rightOhm()).toBe(rightOhm('red'));
    // (3.3 - 1.8) V / 10 mA - 25 ohm = 125 ohm, and E24 goes on with 130
    expect(rightOhm('red')).toBe(130);
    expect(rightOhm('no such colour')).toBe(130);
  });
});

describe('the series E24 (IEC 60063)', () => {
  it('gives a value of the series itself, and the next one above it', () => {
    for (const decade of [0.1, 1, 10, 100, 1000, 1e5])
      E24.forEach((e, i) => {
        const value = Number((decade * e).toPrecision(3));
        expect(nextE24(value)).toBe(value);
        const next = Number((i + 1 < E24.length ? decade * E24[i + 1] : decade * 100).toPrecision(3));
        expect(nextE24(value * 1.001), String(value)).toBe(next);
      });
  });
  it('knows none for nothing, less than nothing, or without end', () => {
    for (const no of [0, -5, Infinity, NaN]) expect(nextE24(no)).toBeNaN();
  });
});
