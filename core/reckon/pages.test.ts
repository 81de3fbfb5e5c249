import { worn } from '../testing/kits.ts';
import { describe, expect, it } from 'vitest';
import { currentOf, ledCurrent, nextE24 } from '../circuit/led.ts';
import { barrow, trowel } from '../kit/kit.ts';
import { b, end, hall, log, logs, program, run, start, wait } from '../testing/build.ts';
import { sampleAt } from '../trace/query.ts';
import { channel, type Trace } from '../trace/trace.ts';
import { PAGES } from './pages.ts';

const values = (key: string, given: Record<string, number> = {}): number[] => {
  const page = PAGES.find((p) => p.key === key)!;
  const v = Object.fromEntries(page.fields.map((f) => [f.key, given[f.key] ?? f.begins(barrow)]));
  return page.work(v).map((l) => l.value);
};

/** The units of each page's lines, in their order. */
const UNITS: Record<string, string[]> = {
  distance: ['turns', '°', 's', 'cm'],
  wheel: ['cm'],
  spot: ['turns', 'cm', 'turns'],
  arc: ['%', 'cm', 'cm', 'cm'],
  speed: ['%'],
  stop: ['cm', 's'],
  servo: ['%', 'ms', '%'],
  tone: ['Hz'],
  led: ['Ω', 'Ω', 'mA'],
  threshold: [''],
  period: ['ms', 'Hz', '%'],
  stick: ['°', '%'],
  bits: ['', ''],
  g: ['m/s²', 'cm/s²'],
  tilt: ['°']
};
describe('the reckoner', () => {
  it('begins with what the kit sheet says', () => {
    for (const page of PAGES)
      for (const line of page.work(Object.fromEntries(page.fields.map((f) => [f.key, f.begins(barrow)]))))
        expect(Number.isFinite(line.value), `${page.key}: ${line.name}`).toBe(true);
    // 80 cm on wheels of 6.8 cm: pi d and s / (pi d), plane geometry
    expect(values('distance')[0]).toBeCloseTo(3.745, 3);
    expect(values('distance')[1]).toBeCloseTo(1348.1, 0);
    // run-up and slowing down at 60 cm/s² cost v/a together (uniform acceleration)
    expect(values('distance')[2]).toBeCloseTo(80 / 18 + 18 / 60, 6);
  });
  it('finds the wheel from what was measured', () => {
    expect(values('wheel', { d: 6.8, a: 80, g: 78.4 })[0]).toBeCloseTo(6.664, 3);
  });
  it('turns on the spot and by one wheel', () => {
    // each wheel rolls angle x track / 2 (Dudek and Jenkin, Computational Principles of Mobile Robotics)
    const [turns, roll, one] = values('spot', { w: 90 });
    expect(turns).toBeCloseTo(0.456, 3);
    expect(roll).toBeCloseTo((Math.PI * 12.4) / 4, 6);
    expect(one).toBeCloseTo(2 * turns, 9);
  });
  it('drives an arc: the wheels roll their own circles', () => {
    const [inner, outer, inside, middle] = values('arc', { t: 12, r: 30, w: 90, p: 36 });
    expect(inner).toBeCloseTo(24, 6);
    expect(outer).toBeCloseTo((Math.PI * 36) / 2, 6);
    expect(inside).toBeCloseTo((Math.PI * 24) / 2, 6);
    expect(middle).toBeCloseTo((outer + inside) / 2, 9);
  });
  it('stops in v²/2a, as uniform deceleration has it', () => {
    expect(values('stop', { v: 30, a: 60 })).toEqual([7.5, 0.5]);
  });
  it('knows a servo’s pulse: 1.0 to 2.0 ms, 1.5 in the middle (common practice)', () => {
    expect(values('servo', { w: 0 })).toEqual([0, 1, 5]);
    expect(values('servo', { w: 90 })).toEqual([50, 1.5, 7.5]);
    expect(values('servo', { w: 180 })).toEqual([100, 2, 10]);
  });
  it('tunes to A4 = 440 Hz (ISO 16)', () => {
    const page = PAGES.find((p) => p.key === 'tone')!;
    expect(page.work({ m: 0 })[0]).toMatchObject({ name: 'A4', value: 440 });
    expect(page.work({ m: -9 })[0].name).toBe('C4');
    // 261.63 Hz, as any table of note frequencies has it
    expect(page.work({ m: -9 })[0].value).toBeCloseTo(261.63, 2);
    expect(page.work({ m: 3 })[0].name).toBe('C5');
    expect(page.work({ m: 12 })[0].value).toBe(880);
  });
  it('halves between two readings, maps a stick, counts bits', () => {
    expect(values('threshold', { a: 10, b: 90 })).toEqual([50]);
    expect(values('stick', { x: -100 })).toEqual([0, 0]);
    expect(values('stick', { x: 100 })).toEqual([180, 100]);
    // the largest numbers of 8 and 16 bits
    expect(values('bits', { p: 100 })).toEqual([255, 65535]);
    expect(values('period', { h: 5, l: 15 })).toEqual([20, 50, 25]);
  });
  it('knows 1 g as 9.80665 m/s² (ISO 80000-3) and a tilt by its arc tangent', () => {
    expect(values('g', { g: 1 })[0]).toBe(9.80665);
    expect(values('tilt', { x: -1, z: 1 })[0]).toBeCloseTo(45, 9);
    expect(values('tilt', { x: -0.5, z: Math.sqrt(3) / 2 })[0]).toBeCloseTo(30, 9);
    expect(values('tilt', { x: 1, z: 0 })[0]).toBeCloseTo(-90, 9);
  });
});

/** What a line says with its numbers in it, worked out as it stands on the page: units beside numbers say nothing new. */
function workedOut(formula: string): number {
  const code = formula
    .replace(/cm\/s|ms|(?<=[\d)] )(V|Ω)|(?<=\d )mA/g, (unit) => (unit === 'mA' ? '/ 1000' : ''))
    .replace(/(\S+) % × /g, '$1 / 100 × ')
    .replace(/ %/g, '')
    .replace(/(\d)π/g, '$1 × π')
    .replace(/²/g, '** 2')
    .replace(/√/g, 'Math.sqrt')
    .replace(/π/g, 'Math.PI')
    .replace(/\^/g, '**')
    .replace(/×/g, '*')
    .replace(/÷ (\d[\d.]*) \/ 1000/g, '÷ ($1 / 1000)')
    .replace(/÷/g, '/')
    .replace(/−/g, '-')
    .replace(/atan2/g, '180 / Math.PI * Math.atan2');
  return Function(`return ${code}`)() as number;
}

describe('every line of the reckoner', () => {
  const asked: Record<string, Record<string, number>[]> = {
    distance: [
      { d: 6.5, s: 80, p: 45, a: 60 },
      { d: 7, s: 2, p: 90, a: 50 }
    ],
    arc: [
      { r: 30, t: 12.5, p: 60, w: 90 },
      { r: 50, t: 11, p: 40, w: 200 }
    ]
  };
  it.each(PAGES.map((page) => [page.key, page] as const))(
    'of "%s" says with its numbers what it gives',
    (key, page) => {
      const usual = Object.fromEntries(page.fields.map((f) => [f.key, f.begins(barrow)]));
      const other = Object.fromEntries(page.fields.map((f, i) => [f.key, Math.abs(f.begins(barrow)) * 1.25 + i]));
      for (const values of [usual, other, ...(asked[key] ?? [])])
        for (const { name, formula, value, unit, places } of page.work(values)) {
          if (!formula) {
            // read off a table, or from the line above
            expect(key, name).toBe('led');
            continue;
          }
          const half = 0.5 * 10 ** -places;
          const got = workedOut(formula);
          expect(Math.abs(got - value), `${formula} = ${got}, not ${value}`).toBeLessThan(
            half + Math.abs(value) * 0.01
          );
          expect(UNITS[key], key).toContain(unit);
        }
    }
  );
  it('knows the units of what it gives', () => {
    for (const page of PAGES) {
      const usual = Object.fromEntries(page.fields.map((f) => [f.key, f.begins(barrow)]));
      expect(
        page.work(usual).map((l) => l.unit),
        page.key
      ).toEqual(UNITS[page.key]);
    }
  });
  it('leaves noughts out behind the point, and says where there is no number', () => {
    const distance = PAGES.find((p) => p.key === 'distance')!;
    const of = (s: number) => distance.work({ d: 10, s, p: 40, a: 60 })[0].formula;
    expect([of(100), of(10.5), of(1000), of(0)]).toEqual([
      '100 ÷ (π × 10)',
      '10.5 ÷ (π × 10)',
      '1000 ÷ (π × 10)',
      '0 ÷ (π × 10)'
    ]);
    const led = PAGES.find((p) => p.key === 'led')!;
    expect(led.work({ u: Infinity, f: 2, i: 10, r: 0 })[0].formula).toBe('(… − 2) V ÷ 10 mA − 0 Ω');
  });
  it('takes just as long speeding up and slowing down where it never comes to full speed', () => {
    const seconds = (s: number) => PAGES.find((p) => p.key === 'distance')!.work({ d: 7, s, p: 100, a: 80 })[2].value;
    // v = 40 cm/s, a = 80 cm/s²: it speeds up for 10 cm and slows down for 10 cm, half a second each
    expect(seconds(20)).toBeCloseTo(1, 9);
    expect(seconds(5)).toBeCloseTo(0.5, 9);
    expect(seconds(60)).toBeCloseTo(2, 9);
  });
});

describe('what the reckoner answers, rehearsed', () => {
  const drove = (trace: Trace): number => (end(trace).x - hall.start.x) * 100;
  it('seconds, turns and degrees drive the distance', () => {
    for (const [s, p] of [
      [80, 45],
      [80, 100],
      [3, 60],
      [12, 20]
    ]) {
      const [turns, degrees, seconds] = values('distance', { s, p });
      for (const [unit, amount] of [
        ['s', seconds],
        ['°', degrees],
        ['wheel turns', turns]
      ] as const)
        expect(drove(run([b('drive.measure', { amount, unit, power: p })])), `${s} cm, ${p} %, ${unit}`).toBeCloseTo(
          s,
          0
        );
    }
  });
  it('the real diameter, put on the kit sheet as measured, drives what is asked', () => {
    const big = worn({ left: { diameter: 1.03 }, right: { diameter: 1.03 } });
    const g = drove(run([b('drive.measure', { amount: 80 })], { quirks: big }));
    const mm = values('wheel', { d: 6.8, a: 80, g })[0] * 10;
    const at = (yMm: number) => ({ diameterMm: mm, xMm: 0, yMm });
    const measured = { device: 'it', wheels: { left: at(62), right: at(-62) } };
    expect(drove(run([b('drive.measure', { amount: 80 })], { quirks: big, kit: { ...barrow, measured } }))).toBeCloseTo(
      80,
      1
    );
  });
  it('the turns for an angle turn it on the spot, by both wheels and by one', () => {
    const [turns, , one] = values('spot', { w: 90 });
    const by = (left: number, right: number, amount: number): number =>
      end(run([b('wheels.span', { left, right, amount, unit: 'wheel turns' })])).facingDeg - hall.start.facingDeg;
    expect(by(35, -35, turns)).toBeCloseTo(90, 0);
    expect(by(35, 0, one)).toBeCloseTo(90, 0);
  });
  it('the powers of an arc drive its circle', () => {
    const [inner, outer] = values('arc', { r: 30, w: 180, p: 40 });
    const trace = run([b('wheels.span', { left: 40, right: inner, amount: outer, unit: 'cm' })]);
    // half a circle of 30 cm to the right, facing ahead along x: it comes 60 cm to the side
    expect((hall.start.y - end(trace).y) * 100).toBeCloseTo(60, 0);
  });
  it('the power drives at the speed, and the rest is rolled while it slows down', () => {
    const v = 18;
    const trace = run([b('drive.measure', { amount: 60, power: values('speed', { v })[0] })]);
    expect(sampleAt(channel(trace, 'speedLeft')!, 1500)).toBeCloseTo(v, 0);
    const [rolls, seconds] = values('stop', { v });
    const moved = trace.events.find((e) => e.type === 'moved')!;
    const x = channel(trace, 'x')!;
    const slowsAt = Math.round(values('distance', { s: 60, p: (v / 40) * 100 })[2] * 1000 - seconds * 1000);
    expect((sampleAt(x, moved.tUs / 1000) - sampleAt(x, slowsAt)) * 100).toBeCloseTo(rolls, 0);
  });
  it('the lean is what the lean block says at rest', () => {
    for (const [way, axis] of [
      ['sideways', 'accelX'],
      ['forwards', 'accelY']
    ] as const)
      for (const deg of [-40, 25]) {
        const trace = run(program(start(wait(1), log(b('sense.lean', { way })))), {
          kit: trowel,
          inputs: [{ tUs: 1e5, input: { lean: { [way]: deg } } }]
        });
        const [x, z] = [axis, 'accelZ'].map((key) => sampleAt(channel(trace, key)!, 900));
        expect(values('tilt', { x, z })[0]).toBeCloseTo(deg, 0);
        expect(Number(logs(trace)[0])).toBe(deg);
      }
  });
  it('the resistor of the series gives the current that the kit has with it', () => {
    const [, ohm, mA] = values('led', { i: 10 });
    expect(mA).toBeCloseTo(currentOf({ ohm, colour: 'red' })! * 1000, 9);
    // the exact resistor, without a series: Shockley's diode stays below its rated voltage at half its rated current
    expect(mA).toBeGreaterThan(9);
    expect(mA).toBeLessThan(10.5);
  });
  it('the tone sounds, and half way on the stick is the middle of the sweep', () => {
    const trace = run([b('sound.tone', { pitch: values('tone', { m: 3 })[0], time: 0.1 })]);
    expect(trace.events.find((e) => e.type === 'tone')).toMatchObject({ hertz: expect.closeTo(523.25, 2) });
    const p = program(start(b('servo.share', { servo: 'J4', share: values('stick', { x: 0 })[1] }), wait(1)));
    expect(sampleAt(channel(run(p), 'servoJ4')!, 900)).toBeCloseTo(values('stick', { x: 0 })[0], 0);
  });
});

describe('an LED on a pin', () => {
  it('has its rated current at its rated voltage, and obeys the loop', () => {
    for (const forward of [1.8, 2.1, 3.0]) {
      expect(ledCurrent(forward, 0, forward) * 1000).toBeCloseTo(20, 6);
      for (const ohm of [47, 150, 330, 1000]) {
        const i = ledCurrent(5, ohm, forward);
        // what is left across the diode gives the same current by Shockley's law
        expect(ledCurrent(5 - i * ohm, 0, forward)).toBeCloseTo(i, 9);
      }
    }
  });
  it('is near the rule of thumb (U - Uf) / I, common practice', () => {
    // a red LED at 5 V with 150 Ω: some 20 mA
    expect(ledCurrent(5, 150, 1.8) * 1000).toBeGreaterThan(19);
    expect(ledCurrent(5, 150, 1.8) * 1000).toBeLessThan(23);
  });
  it('takes the next value of E24 (IEC 60063)', () => {
    expect([75, 76, 150, 151, 999, 1000, 4.8].map(nextE24)).toEqual([75, 82, 150, 160, 1000, 1000, 5.1]);
    expect(nextE24(-3)).toBeNaN();
  });
});
