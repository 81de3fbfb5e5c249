/** Barrow as classes have it: measured, put together otherwise, worn. Both runners must drive each alike. */
import { displayOf, type Display } from '../kit/display.ts';
import { barrow, hauler, resized, saucer, type Kit, type Part } from '../kit/kit.ts';
import { asBuilt, noQuirks, quirksOf, type Quirks, type WheelQuirks } from '../kit/quirks.ts';
import { STAND_INS } from '../kit/units.ts';

const parts = (change: (part: Part) => Partial<Part>): Kit => ({
  ...barrow,
  parts: barrow.parts.map((p) => ({ ...p, ...change(p) }) as Part)
});
/** A device whose wheels alone differ from its kit sheet. */
export const worn = (wheels: Record<string, Partial<WheelQuirks>>): Quirks => ({
  ...noQuirks,
  wheels: Object.fromEntries(Object.entries(wheels).map(([id, w]) => [id, { ...asBuilt, ...w }]))
});
const MOVED: Record<string, string> = { J1: 'J3', J2: 'J1', J4: 'J6', J5: 'J4', J7: 'J10', J8: 'J7', J9: 'J8' };

/** Barrow with another display. */
export const showing = (display: Display | undefined): Kit => ({ ...barrow, display });
const seat = { at: barrow.display!.at, turnedDeg: 0 } as const;

export const KITS: Record<string, { kit: Kit; quirks?: Quirks }> = {
  plain: { kit: barrow },
  'on rollers': { kit: saucer },
  'on four wheels': { kit: hauler },
  measured: {
    kit: {
      ...barrow,
      measured: {
        device: 'Barrow 3',
        wheels: { left: { diameterMm: 66, xMm: 0, yMm: 60.5 }, right: { diameterMm: 66.4, xMm: 0, yMm: -60.5 } }
      }
    }
  },
  'other wheels': {
    kit: resized(barrow, { left: 56, right: 72, trackMm: 140 })
  },
  'wheels not alike on both sides': {
    kit: {
      ...barrow,
      wheels: barrow.wheels.map((w) => ({
        ...w,
        at: { ...w.at, xMm: w.id === 'left' ? 1 : 0, yMm: w.id === 'left' ? 62.5 : -58 }
      }))
    }
  },
  'other sockets': { kit: parts((p) => ({ socket: MOVED[p.socket] ?? p.socket })) },
  'mounted the other way': {
    kit: parts((p) =>
      p.type === 'motor' && p.drives ? { mounted: p.mounted === 'mirrored' ? 'normal' : 'mirrored' } : {}
    )
  },
  'with a colour screen': { kit: showing(displayOf('screen', seat)) },
  'with a strip': { kit: showing(displayOf('strip', seat)) },
  'with lamps of three levels': { kit: showing({ type: 'matrix', columns: 16, rows: 8, levels: 3, ...seat }) },
  'without a display': { kit: showing(undefined) },
  'crooked servos': {
    kit: parts((p) =>
      p.name === 'striker' ? { hornDeg: -35, freeToDeg: 110 } : p.name === 'pan' ? { plug: 'wrong' } : {}
    )
  },
  'a strong motor and much weight': {
    kit: {
      ...barrow,
      chassis: { ...barrow.chassis, massKg: 1.4 },
      motor: { ...barrow.motor, stallNm: 0.3, freeTurnsPerS: 3 }
    }
  },
  ...Object.fromEntries(STAND_INS.slice(0, 3).map((s) => [s.name, { kit: barrow, quirks: quirksOf(s.serial, barrow) }]))
};
