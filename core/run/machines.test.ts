/** What machines do that are no Barrow: three wheels with rollers, four with tyres. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calibrated } from '../kit/calibration.ts';
import { hauler, kits, placesOf, saucer, type Kit } from '../kit/kit.ts';
import { noQuirks, quirksOf } from '../kit/quirks.ts';
import { canOf } from '../kit/rolling.ts';
import { abilities } from '../kit/kit.ts';
import { lookOver } from '../language/lookover/lookover.ts';
import { b, end, hall, log, program, run, start, wait } from '../testing/build.ts';
import { sampleAt } from '../trace/query.ts';
import { channel } from '../trace/trace.ts';
import { compostYard } from '../yard/mats.ts';
import { calibrate } from './calibrate.ts';

const from = { x: 1.5, y: 1.5, facingDeg: 0 };
/** Where it stands from where it began, cm, and how far it has turned, degrees clockwise. */
const went = (steps: Parameters<typeof run>[0], kit: Kit, more: object = {}) => {
  const { x, y, facingDeg } = end(run(steps, { kit, mat: hall, start: from, noise: false, ...more }));
  return { right: (x - 1.5) * 100, ahead: (y - 1.5) * 100, turned: ((facingDeg + 540) % 360) - 180 };
};

describe('a machine on three wheels with rollers', () => {
  it('slides by what is asked in every direction, to within 1 mm and a third of a degree', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 540 }),
        fc.integer({ min: 5, max: 90 }),
        fc.integer({ min: 15, max: 90 }),
        (direction, amount, power) => {
          const got = went([b('slide.measure', { direction, amount, power })], saucer);
          const rad = (direction * Math.PI) / 180;
          const off = Math.hypot(got.right - amount * Math.sin(rad), got.ahead - amount * Math.cos(rad));
          // the ways of its wheels bend a little while they brake
          expect(off).toBeLessThan(0.1 + 0.006 * amount);
          expect(Math.abs(got.turned)).toBeLessThan(1);
        }
      ),
      { numRuns: 25 }
    );
  });
  it('drives and turns as any other', () => {
    expect(went([b('drive.measure', { amount: 40 })], saucer).ahead).toBeCloseTo(40, 0);
    expect(went([b('turn.angle', { side: 'right', angle: 90 })], saucer).turned).toBeCloseTo(90, 0);
    expect(went([b('drive.measure', { way: 'back', amount: 1, unit: 'wheel turns' })], saucer).ahead).toBeCloseTo(
      // its wheels roll ahead at 30 degrees to their way: one turn of 48 mm takes it 1 / cos 30 as far
      (-Math.PI * 4.8) / Math.cos(Math.PI / 6),
      0
    );
  });
  it('takes so long as it is told, whichever way it slides', () => {
    for (const direction of [0, 37, 90, 210]) {
      const trace = run([b('slide.measure', { direction, amount: 1.5, unit: 's' })], {
        kit: saucer,
        mat: hall,
        start: from
      });
      const moved = trace.events.find((e) => e.type === 'moved')!;
      expect(moved.tUs / 1e6, String(direction)).toBeCloseTo(1.5, 1);
    }
  });
  it('slides on towards a heading while something turns it, and keeps facing as it did', () => {
    const push = { tUs: 500_000, input: { push: { turn: 40, seconds: 0.3 } } };
    const got = went([b('slide.run', { heading: 90, power: 40 }), wait(3), b('wheels.stop')], saucer, {
      inputs: [push]
    });
    expect(got.right).toBeGreaterThan(30);
    expect(Math.abs(got.ahead)).toBeLessThan(3);
    expect(Math.abs(got.turned)).toBeLessThan(3);
  });
  it('stops sliding when any block moves its wheels', () => {
    const slide = b('slide.run', { heading: 0, power: 40 });
    for (const other of [b('wheels.stop'), b('turn.angle', { angle: 30 })]) {
      const trace = run([slide, wait(0.5), other, wait(1)], { kit: saucer, mat: hall, start: from });
      expect(Math.abs(sampleAt(channel(trace, 'powerBack')!, trace.ticks - 1)), other.kind).toBeLessThan(1);
    }
  });
  it('cannot be told by left and right wheels, and one with tyres cannot slide', () => {
    const error = (step: ReturnType<typeof b>, kit: Kit) =>
      run([step], { kit, mat: hall, start: from }).events.flatMap((e) => (e.type === 'error' ? [e.kind] : []));
    expect(error(b('wheels.run'), saucer)).toEqual(['no-sides']);
    expect(error(b('slide.measure'), hauler)).toEqual(['no-slide']);
    expect(error(b('slide.run'), kits.barrow)).toEqual(['no-slide']);
    expect(['drive', 'slide', 'wheels'].map((a) => abilities(saucer).has(a))).toEqual([true, true, false]);
    expect(['drive', 'slide', 'wheels'].map((a) => abilities(hauler).has(a))).toEqual([true, false, true]);
    const tyres = saucer.wheels.map((w) => ({ ...w, rim: 'tyre' as const }));
    expect(canOf(placesOf(tyres)).slide).toBe(false);
  });
  it('is looked over as any other: what starts it and never stops it, moves it too early, or twice at once', () => {
    const rules = (...stacks: ReturnType<typeof start>[]) =>
      lookOver({ program: program(...stacks), kit: saucer }).map((r) => r.rule);
    const on = () => b('slide.run');
    expect(rules(start(on()))).toContain('never-stopped');
    expect(rules(start(on(), wait(1), b('wheels.stop')))).toEqual([]);
    expect(rules(start(on(), wait(1), b('slide.measure')))).toEqual([]);
    expect(rules([b('begin.before'), b('slide.measure')], [b('begin.off'), b('sound.beep')])).toContain(
      'drives-before'
    );
    expect(rules(start(b('slide.measure')), start(b('slide.measure')))).toContain('two-stacks-one-motor');
  });
  it('feels a wall where it meets it, from the notch on, and a finger', () => {
    const wall = { x: 2.1, y: 1.5, width: 0.1, height: 2, colour: '#888888' };
    const place = (facingDeg: number) => {
      const trace = run(
        program(
          start(
            b('slide.run', { heading: 90 - facingDeg, power: 40 }),
            b('wait.touch', { what: 'rim' }),
            b('wheels.stop'),
            log(b('sense.rimplace'))
          )
        ),
        { kit: saucer, mat: { ...hall, walls: [wall] }, start: { ...from, facingDeg }, noise: false }
      );
      return Number(trace.events.flatMap((e) => (e.type === 'log' ? [e.text] : []))[0]);
    };
    // the wall is in the east: that is so many degrees to the right of where its notch points
    for (const facing of [0, 30, 90, 200]) {
      const off = (place(facing) - (90 - facing) + 540) % 360;
      expect(Math.abs(off - 180), String(facing)).toBeLessThan(7);
    }
  });
  it('is calibrated: its own wheels and ring are found, and it then goes where it is asked', () => {
    const quirks = quirksOf('MB-SAU-0004', saucer);
    const found = calibrate(saucer, quirks);
    for (const w of saucer.wheels)
      expect(found.wheels[w.id].diameterMm / (w.diameterMm * quirks.wheels[w.id].diameter), w.id).toBeCloseTo(1, 2);
    const off = (kit: Kit) => {
      const got = went([b('slide.measure', { direction: 60, amount: 80 })], kit, { quirks, onBattery: true });
      return Math.hypot(got.right - 80 * Math.sin(Math.PI / 3), got.ahead - 80 * Math.cos(Math.PI / 3));
    };
    expect(off(calibrated(saucer, 'Saucer 4', found))).toBeLessThan(off(saucer));
  });
});

describe('a machine on four wheels with tyres', () => {
  const at = { mat: compostYard, start: { x: 2, y: 0.6, facingDeg: 90 }, noise: false };
  it('drives straight by what is asked, to within 1 mm', () => {
    for (const [amount, power] of [
      [20, 20],
      [60, 60],
      [110, 90]
    ])
      expect((end(run([b('drive.measure', { amount, power })], { kit: hauler, ...at })).x - 2) * 100).toBeCloseTo(
        amount,
        0
      );
  });
  it('scrapes in a turn that its wheels count, not in one by the gyro; calibrated it turns as asked', () => {
    // a device of its own: a rehearsal takes what is measured for what is there
    const quirks = { ...noQuirks, gyroBiasDegS: 1e-6 };
    const turned = (step: ReturnType<typeof b>, kit: Kit) => end(run([step], { kit, ...at, quirks })).facingDeg - 90;
    const counted = b('turn.angle', { side: 'right', angle: 90, power: 30 });
    expect(turned(counted, hauler)).toBeLessThan(80);
    expect(turned(b('turn.gyro', { side: 'right', angle: 90, power: 30 }), hauler)).toBeCloseTo(90, 0);
    const kit = calibrated(hauler, 'it', calibrate(hauler, quirks));
    expect(Math.abs(turned(counted, kit) - 90)).toBeLessThan(3);
  });
  it('turns on the spot when two of its motors get the same sign, for two are mounted mirrored', () => {
    const both = ['J1', 'J2', 'J3', 'J4'].map((motor) => b('motor.run', { motor, power: 40 }));
    const trace = run([...both, wait(1.2), b('wheels.stop')], { kit: hauler, ...at });
    expect(Math.hypot(end(trace).x - 2, end(trace).y - 0.6)).toBeLessThan(0.03);
    expect(Math.abs(end(trace).facingDeg - 90)).toBeGreaterThan(20);
  });
});
