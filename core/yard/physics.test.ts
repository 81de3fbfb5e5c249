/** What devices feel and what hands do, against closed forms; random worlds against the laws. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow, trowel, type Kit, plugged } from '../kit/kit.ts';
import { quirksOf } from '../kit/quirks.ts';
import { Bench } from '../run/bench.ts';
import { Interpreter } from '../run/interpreter.ts';
import { randomProgram } from '../testing/random.ts';
import { b, end, hall, logs, log, program, run, start, wait } from '../testing/build.ts';
import { long } from '../testing/long.ts';
import { findings } from '../trace/findings/findings.ts';
import { sampleAt } from '../trace/query.ts';
import { channel, type Input, type Trace } from '../trace/trace.ts';
import { colourName, NAMED_COLOURS } from './colour.ts';
import { GRAVITY } from '../units.ts';
import { airTime } from './hand.ts';
import type { Mat } from './mat.ts';
import { pulseFor } from '../kit/pulse.ts';
import { Servo, SpinServo } from './servo.ts';
import { lightAt, moistureAt, warmthAt } from './surroundings.ts';
import { Tilt } from './tilt.ts';
import { Yard } from './yard.ts';

const at = (seconds: number, input: Input) => ({ tUs: seconds * 1e6, input });
const values = (trace: Trace, key: string, from = 0, to = trace.ticks): number[] => {
  const c = channel(trace, key)!;
  return Array.from({ length: to - from }, (_, i) => sampleAt(c, from + i));
};

describe('light, warmth and damp', () => {
  const mat: Mat = {
    ...hall,
    daylight: 10,
    lamps: [{ x: 1, y: 1, height: 0.3, brightness: 80 }],
    warmth: [{ x: 2, y: 2, radius: 0.5, celsius: -4 }],
    damp: [{ x: 1, y: 2, radius: 0.4, moisture: 90 }]
  };
  it('a lamp lights by the inverse-square law with the cosine (any handbook of photometry)', () => {
    expect(lightAt(mat, 1, 1)).toBeCloseTo(90, 9);
    // at a distance equal to its height: cos^3(45 degrees) = 0.35355
    expect(lightAt(mat, 1.3, 1)).toBeCloseTo(10 + 80 * Math.SQRT1_2 ** 3, 9);
    expect(lightAt({ ...mat, daylight: 100 }, 1, 1)).toBe(100);
  });
  it('a cold place draws the air towards it, and soil is damp where it is damp', () => {
    expect(warmthAt(mat, 2, 2)).toBe(-4);
    expect(warmthAt(mat, 2.25, 2)).toBeCloseTo(8, 9);
    expect(warmthAt(mat, 0.5, 0.5)).toBe(20);
    expect(moistureAt(mat, 1, 2)).toBe(90);
    expect(moistureAt(mat, 1.2, 2)).toBeCloseTo(45, 9);
  });
  it('two warm places are no warmer together than the warmer one, and mix where they meet', () => {
    const of = (...celsius: number[]) => ({
      ...hall,
      warmth: celsius.map((c) => ({ x: 2, y: 2, radius: 0.5, celsius: c }))
    });
    expect(warmthAt(of(40, 40), 2, 2)).toBe(40);
    expect(warmthAt(of(40, 0), 2, 2)).toBe(20);
    expect(warmthAt(of(40, 40), 2.4, 2)).toBeCloseTo(28, 9);
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ d: fc.double({ min: 0, max: 0.6, noNaN: true }), celsius: fc.integer({ min: -10, max: 60 }) })
        ),
        (spots) => {
          const warmth = spots.map(({ d, celsius }) => ({ x: 2 + d, y: 2, radius: 0.5, celsius }));
          const all = [hall.airC, ...warmth.map((w) => w.celsius)];
          const here = warmthAt({ ...hall, warmth }, 2, 2);
          expect(here).toBeGreaterThanOrEqual(Math.min(...all) - 1e-9);
          expect(here).toBeLessThanOrEqual(Math.max(...all) + 1e-9);
        }
      )
    );
  });
  it('reach a program: frost is felt, and moisture only with the foot in the soil', () => {
    const trace = run(
      program(start(log(b('sense.temperature')), log(b('sense.moisture')), wait(1), log(b('sense.moisture')))),
      {
        kit: trowel,
        mat: { ...mat, warmth: [{ x: 1, y: 2, radius: 0.5, celsius: -4 }], start: { x: 1, y: 2, facingDeg: 0 } },
        inputs: [at(0.5, { soil: true })]
      }
    );
    expect(logs(trace)).toEqual(['-4', '0', '90']);
  });
});

describe('the colour sensor', () => {
  it('is the nearest in CIELAB, by the published formulas (IEC 61966-2-1, CIE 15), written out here', () => {
    const channelOf = (v: number): number => (v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4));
    const f = (t: number): number => (t > Math.pow(6 / 29, 3) ? Math.cbrt(t) : t / (3 * Math.pow(6 / 29, 2)) + 4 / 29);
    const lab = (hex: string): number[] => {
      const [r, g, bl] = [1, 3, 5].map((i) => channelOf(parseInt(hex.slice(i, i + 2), 16) / 255));
      // white point D65
      const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * bl) / 0.95047);
      const y = f(0.2126729 * r + 0.7151522 * g + 0.072175 * bl);
      const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * bl) / 1.08883);
      return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
    };
    // sRGB red: published tables of conversions, from memory
    expect(lab('#ff0000').map((v) => Math.round(v * 10) / 10)).toEqual([53.2, 80.1, 67.2]);
    const far = (p: number[], q: number[]): number => Math.hypot(...p.map((v, i) => v - q[i]));
    const rgb = (hex: string): number[] => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
    const byThe = (of: (hex: string) => number[], hex: string): [string, number][] =>
      Object.entries(NAMED_COLOURS)
        .map(([name, its]): [string, number] => [name, far(of(hex), of(its))])
        .sort((p, q) => p[1] - q[1]);
    let otherwise = 0;
    for (let n = 0; n < 512; n++) {
      const hex = `#${[n & 7, (n >> 3) & 7, n >> 6]
        .map((v) =>
          Math.round((v * 255) / 7)
            .toString(16)
            .padStart(2, '0')
        )
        .join('')}`;
      const [first, second] = byThe(lab, hex);
      if (second[1] - first[1] > 0.5) expect(colourName(hex), hex).toBe(first[0]);
      if (byThe(rgb, hex)[0][0] !== first[0]) otherwise++;
    }
    // the plain difference of red, green and blue would often say another name
    expect(otherwise).toBeGreaterThan(50);
  });
  it('names its own colours, and what is near them', () => {
    for (const [name, hex] of Object.entries(NAMED_COLOURS)) expect(colourName(hex)).toBe(name);
    expect([colourName('#ff0000'), colourName('#00aa00'), colourName('#ffffff'), colourName('#cfdcc0')]).toEqual([
      'red',
      'green',
      'white',
      'white'
    ]);
  });
  it('reads the floor under it in a program, on both sides of an edge', () => {
    const kit: Kit = { ...barrow, parts: [...barrow.parts, plugged(barrow, 'J10', 'colour')] };
    const red: [number, number][] = [
      [1.6, 1.4],
      [1.8, 1.4],
      [1.8, 1.6],
      [1.6, 1.6]
    ];
    const mat: Mat = { ...hall, areas: [{ points: red, colour: '#c02020', reflectance: 30 }] };
    const trace = run([log(b('sense.colour')), b('drive.measure', { amount: 14 }), log(b('sense.colour'))], {
      kit,
      mat
    });
    expect(logs(trace)).toEqual(['white', 'red']);
  });
});

describe('servos', () => {
  it('take pulses of 1.0 to 2.0 ms for 0 to 180 degrees, the middle at 1.5 ms (common practice)', () => {
    expect([0, 90, 180].map((a) => pulseFor(a))).toEqual([1, 1.5, 2]);
    expect([0, 90, 180].map((a) => pulseFor(a, 0.5, 2.5))).toEqual([0.5, 1.5, 2.5]);
  });
  it('stall against what is in the way, and draw more than when they move', () => {
    const servo = new Servo({ fromDeg: 40, toDeg: 140 });
    servo.target = 170;
    for (let i = 0; i < 400; i++) servo.step(0.001);
    expect([servo.angle, servo.stalled, servo.moving]).toEqual([140, true, false]);
    expect(servo.ampere).toBeGreaterThan(0.25);
    servo.target = 100;
    for (let i = 0; i < 400; i++) servo.step(0.001);
    expect([servo.angle, servo.stalled]).toEqual([100, false]);
  });
  it('a stall is told in the trace once', () => {
    const kit: Kit = { ...barrow, parts: barrow.parts.map((p) => (p.socket === 'J4' ? { ...p, freeToDeg: 120 } : p)) };
    const trace = run([b('servo.angle', { servo: 'J4', angle: 180 }), wait(1)], { kit });
    expect(trace.events.filter((e) => e.type === 'stalled')).toMatchObject([{ socket: 'J4', angle: 120 }]);
    expect(findings(trace, barrow).find((f) => f.rule === 'stalled')?.says).toContain('stopped at 120°');
  });
  it('with the plug the wrong way round it is dead', () => {
    const kit: Kit = {
      ...barrow,
      parts: barrow.parts.map((p) => (p.socket === 'J4' ? { ...p, plug: 'wrong' as const } : p))
    };
    const trace = run([b('servo.angle', { servo: 'J4', angle: 180 }), wait(1)], { kit });
    expect(new Set(values(trace, 'servoJ4'))).toEqual(new Set([90]));
  });
  it('a spin servo turns at a speed, without stops', () => {
    const servo = new SpinServo();
    servo.power = 100;
    for (let i = 0; i < 2000; i++) servo.step(0.001);
    expect(servo.angle).toBeCloseTo(600 - 360, 6);
  });
});

describe('a device in the hand', () => {
  const tossed = run(program(start(wait(2))), { kit: trowel, inputs: [at(0.5, { toss: 60 })] });
  it('tossed to h is in the air for sqrt(8 h / g), weightless, and comes up to h (projectile motion)', () => {
    expect(airTime(0.6)).toBeCloseTo(0.6996, 4); // 0.70 s: devices.md
    expect(Math.max(...values(tossed, 'height'))).toBeCloseTo(60, 0);
    // once the filter of 50 Hz has settled
    expect(Math.max(...values(tossed, 'accelTotal', 630, 1250))).toBeLessThan(0.01);
  });
  it('is pushed up with what the throw takes: 1 + v² / (2 g s) over 10 cm, before it flies (uniform acceleration)', () => {
    // v² = 2 g h, so 1 + h / s = 7 g for 60 cm over 10 cm, for 2 s / v = 58 ms
    const push = values(tossed, 'accelTotal', 500, 560);
    expect(Math.max(...push)).toBeGreaterThan(6);
    expect(Math.max(...push)).toBeLessThan(7.2);
    expect(push.filter((v) => v > 3).length).toBeGreaterThan(35);
  });
  it('shaken gently is felt just over 1 g, and is no shake that the trigger takes for one', () => {
    const shaken = (input: Input) => run(program(start(wait(2))), { kit: trowel, inputs: [at(0.5, input)] });
    const gentle = values(shaken({ shake: 1, g: 0.6 }), 'accelTotal');
    expect(Math.max(...gentle)).toBeGreaterThan(1.1);
    expect(Math.max(...gentle)).toBeLessThan(1.25);
    expect(Math.max(...values(shaken({ shake: 1 }), 'accelTotal'))).toBeGreaterThan(2);
  });
  it('is caught with about 7 g for 60 cm over 10 cm (common practice), and rests at 1 g', () => {
    const most = Math.max(...values(tossed, 'accelTotal', 1250, 1560));
    expect(most).toBeGreaterThan(6.5);
    expect(most).toBeLessThan(7.5);
    expect(sampleAt(channel(tossed, 'accelTotal')!, tossed.ticks - 1)).toBeCloseTo(1, 2);
  });
  it('dropped from h falls for sqrt(2 h / g), and lands at the end of its range', () => {
    const trace = run(program(start(wait(1.5))), { kit: trowel, inputs: [at(0.5, { drop: 100 })] });
    const low = values(trace, 'accelTotal').filter((v) => v < 0.1).length;
    expect(low / 1000).toBeCloseTo(Math.sqrt(2 / GRAVITY), 1);
    // stopped over 3 cm: 34 g, of which the sensor shows the 8 g of its range
    const most = Math.max(...values(trace, 'accelTotal'));
    expect(most).toBeGreaterThan(5);
    expect(most).toBeLessThanOrEqual(8);
  });
  it('leaned by a degrees feels g sin a along its side (statics)', () => {
    const trace = run(program(start(wait(1))), { kit: trowel, inputs: [at(0.2, { lean: { sideways: 30 } })] });
    expect(sampleAt(channel(trace, 'accelX')!, 900)).toBeCloseTo(-0.5, 2);
    expect(sampleAt(channel(trace, 'accelZ')!, 900)).toBeCloseTo(Math.cos(Math.PI / 6), 2);
    expect(sampleAt(channel(trace, 'leanSideways')!, 900)).toBeCloseTo(30, 6);
  });
});

describe('a hand on Barrow', () => {
  it('lifts it, carries it elsewhere and turns it; the gyro sees the turn', () => {
    const trace = run(program(start(wait(3), log(b('sense.heading')))), {
      inputs: [at(0.2, { lift: true }), at(0.3, { carry: { x: 60, y: 220, facing: 180 } }), at(2.5, { lift: false })]
    });
    const { x, y, facingDeg } = end(trace);
    expect([x, y, facingDeg].map((v) => Math.round(v * 100) / 100)).toEqual([0.6, 2.2, 180]);
    expect(Number(logs(trace)[0])).toBeCloseTo(90, 0);
    expect(channel(trace, 'lifted')!.high.some((v) => v === 1)).toBe(true);
  });
  it('puts it elsewhere in one go while time stands still', () => {
    const inputs = [{ lift: true }, { carry: { x: 90, y: 120, facing: 0 } }, { lift: false }].map((i) => at(0.5, i));
    const trace = run(program(start(wait(1))), { inputs });
    const { x, y, facingDeg } = end(trace);
    expect([x, y, facingDeg].map((v) => Math.round(v * 1000) / 1000)).toEqual([0.9, 1.2, 0]);
    expect(values(trace, 'x', 498, 503).map((v) => Math.round(v * 100) / 100)).toEqual([1.5, 1.5, 0.9, 0.9, 0.9]);
  });
  it('lets its wheels spin in the air: it does not drive off', () => {
    const trace = run(program(start(b('wheels.run', { left: 50, right: 50 }), wait(2), b('wheels.stop'))), {
      inputs: [at(0, { lift: true }), at(1.9, { lift: false })]
    });
    // free: no load but friction, so nearly the speed where the torque line meets zero
    expect(values(trace, 'speedLeft')[1500]).toBeGreaterThan(20);
    expect(end(trace).x).toBeLessThan(1.6);
  });
  it('sets it down beside a wall, not in it', () => {
    const mat: Mat = { ...hall, walls: [{ x: 2.5, y: 1.5, width: 0.4, height: 1, colour: '#888888' }] };
    const trace = run(program(start(wait(3))), {
      mat,
      inputs: [at(0.2, { lift: true }), at(0.3, { carry: { x: 250, y: 150, facing: 0 } }), at(2.5, { lift: false })]
    });
    const bench = new Bench({ program: program(), kit: barrow, mat, seed: 1, start: end(trace) });
    expect(bench.yard.isFree()).toBe(true);
    expect(trace.events.some((e) => e.type === 'touch' && e.speedCmS > 1)).toBe(false);
  });
  it('pushes it: held wheels slide once the push beats friction (Coulomb)', () => {
    const pushed = (newton: number) =>
      end(run(program(start(wait(1))), { inputs: [at(0.2, { push: { right: newton, seconds: 0.3 } })] })).y;
    // wheels carry 80 % of 0.62 kg on rubber with mu = 0.8: 3.9 N
    expect(Math.abs(pushed(2) - 1.5)).toBeLessThan(0.005);
    expect(pushed(6)).toBeLessThan(1.45);
  });
});

describe('tipping over a wheel', () => {
  const tilt = () => new Tilt(0.062, 0.045);
  it('lifts a wheel at g (track / 2) / h and not below (statics): 1.38 g for Barrow', () => {
    expect(tilt().lifts / GRAVITY).toBeCloseTo(62 / 45, 9);
    const t = tilt();
    for (let i = 0; i < 1000; i++) t.step(t.lifts * 0.99, 0.001);
    expect(t.phi).toBe(0);
    t.step(t.lifts * 1.05, 0.001);
    expect(t.phi).toBeGreaterThan(0);
  });
  it('falls over when the knock carries the mass over the wheel (energy), and rocks back when it does not', () => {
    // half a second after a knock of a metres a second in one tick; the rigid block: v m h / I, and m g (r - h) to climb
    const falls = (v: number): boolean => {
      const t = tilt();
      t.step(v / 0.001, 0.001);
      for (let i = 0; i < 3000; i++) t.step(0, 0.001);
      if (!t.fallen) expect(t.phi).toBe(0);
      return t.fallen;
    };
    const [b2, h] = [0.062, 0.045];
    const r2 = b2 * b2 + h * h;
    // 1/2 I w^2 = m g (r - h), with I = 4/3 m r^2 and w = v h / (4/3 r^2)
    const limit = Math.sqrt((2 * GRAVITY * (Math.sqrt(r2) - h) * (4 / 3) * r2) / (h * h));
    expect(falls(limit * 0.9)).toBe(false);
    expect(falls(limit * 1.1)).toBe(true);
  });
  it('happens to Barrow by a hard push, never by driving; set down, it stands again', () => {
    const inputs = [at(0.2, { push: { right: 40, seconds: 0.2 } }), at(2, { lift: true }), at(2.5, { lift: false })];
    const trace = run(program(start(wait(3), b('drive.measure', { amount: 10 }))), { inputs });
    expect(trace.events.filter((e) => e.type === 'tipped').length).toBe(1);
    expect(findings(trace, barrow).map((f) => f.rule)).toContain('tipped');
    const hard = run([
      b('wheels.run', { left: 100, right: -100 }),
      wait(1),
      b('wheels.run', { left: -100, right: 100 }),
      wait(1),
      b('wheels.stop')
    ]);
    expect(hard.events.some((e) => e.type === 'tipped')).toBe(false);
  });
});

describe('areas with their own friction', () => {
  const on = (friction: number) =>
    run([b('wheels.run', { left: 100, right: 100 }), wait(0.25), b('wheels.stop', { ending: 'coast' })], {
      mat: {
        ...hall,
        areas: [
          {
            points: [
              [0, 0],
              [3, 0],
              [3, 3],
              [0, 3]
            ],
            colour: '#808080',
            reflectance: 50,
            friction
          }
        ]
      }
    });
  const top = (trace: Trace) =>
    Math.max(...values(trace, 'x', 0, 250).map((x, i, all) => (i ? (x - all[i - 1]) * 1000 : 0)));
  it('wet moss lets the wheels slip: acceleration is at most mu g of the share they carry (Coulomb)', () => {
    // mu = 0.15 on 80 % of the weight for 0.25 s: 0.29 m/s at the most; on the mat the motors are the limit
    expect(top(on(0.15))).toBeLessThan(0.15 * GRAVITY * 0.8 * 0.251);
    expect(top(on(0.8))).toBeGreaterThan(top(on(0.15)) + 0.05);
  });
});

describe('a device that sleeps', () => {
  it('falls asleep after its minutes without a touch, and stays awake while it is touched', () => {
    const kit: Kit = { ...trowel, sleepMin: 0.05 };
    const asleep = run(program(start(wait(20))), { kit });
    expect([asleep.ended, asleep.ticks]).toEqual(['asleep', 3000]);
    const touched = run(program(start(wait(5))), { kit, inputs: [at(2, { press: 'Dot' }), at(4, { release: 'Dot' })] });
    expect(touched.ended).toBe('done');
  });
});

// ---- random worlds ----
const place = fc.double({ min: 0.1, max: 1.9, noNaN: true });
const randomMat = fc.record({
  walls: fc.array(
    fc.record({
      x: place,
      y: place,
      width: fc.double({ min: 0.01, max: 0.6, noNaN: true }),
      height: fc.double({ min: 0.01, max: 0.6, noNaN: true }),
      turnDeg: fc.integer({ min: 0, max: 180 }),
      colour: fc.constant('#888888')
    }),
    { maxLength: 5 }
  ),
  things: fc.array(
    fc.record({
      x: place,
      y: place,
      radius: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
      massKg: fc.double({ min: 0.02, max: 2, noNaN: true }),
      colour: fc.constant('#888888')
    }),
    { maxLength: 4 }
  ),
  friction: fc.double({ min: 0.05, max: 1.2, noNaN: true })
});
const matOf = ({ walls, things, friction }: { walls: Mat['walls']; things: Mat['things']; friction: number }): Mat => ({
  ...hall,
  width: 2,
  height: 2,
  start: { x: 1, y: 1, facingDeg: 30 },
  areas: [
    {
      points: [
        [0, 0],
        [2, 0],
        [2, 1],
        [0, 1]
      ],
      colour: '#808080',
      reflectance: 30,
      friction
    }
  ],
  walls: walls.filter((w) => Math.hypot(w.x - 1, w.y - 1) > 0.15 + Math.hypot(w.width, w.height) / 2),
  things: things.filter((t) => Math.hypot(t.x - 1, t.y - 1) > 0.15 + t.radius)
});

describe('laws that hold in any yard', () => {
  it('energy never appears from nowhere: what moves was put in by the motors', () => {
    fc.assert(
      fc.property(
        randomMat,
        fc.array(fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true })), {
          minLength: 3,
          maxLength: 8
        }),
        (made, duties) => {
          const mat = matOf(made);
          const yard = new Yard({ kit: barrow, mat, seed: 1, noise: false });
          const motors = yard.wheels.map((w) => w.motor!);
          let put = 0;
          for (const [l, r] of duties)
            for (let i = 0; i < 120; i++) {
              [motors[0].duty, motors[1].duty] = [l, r];
              for (const m of motors) m.state = 'driven';
              const before = motors.map((m) => m.omega);
              const torque = motors.map((m) => m.torque(yard.battery.volts));
              yard.step();
              // what each motor gave in this tick, at the faster of its two speeds
              motors.forEach((m, k) => {
                const speeds = [torque[k] * before[k], torque[k] * m.omega];
                put += Math.max(...speeds, 0) * 0.001;
              });
              let energy = 0;
              for (const body of [yard.robot, ...yard.things]) {
                const v = body.getLinearVelocity();
                const c = body.getLocalCenter();
                const about = body.getInertia() - body.getMass() * (c.x * c.x + c.y * c.y);
                energy += (body.getMass() * (v.x * v.x + v.y * v.y) + about * body.getAngularVelocity() ** 2) / 2;
              }
              for (const m of motors) energy += (m.constants.inertiaKgM2 * m.omega * m.omega) / 2;
              expect(energy).toBeLessThanOrEqual(put * 1.02 + 0.002);
            }
        }
      ),
      { numRuns: 60 }
    );
  });
  long(
    'a thousand random programs on random mats: no NaN, nothing leaves the walls, no motor above its torque line',
    () => {
      fc.assert(
        fc.property(randomMat, randomProgram, fc.integer({ min: 1, max: 1e6 }), (made, wild, seed) => {
          const mat = matOf(made);
          const bench = new Bench({
            program: wild,
            kit: barrow,
            mat,
            seed,
            limitS: 1,
            quirks: quirksOf(`R${seed}`, barrow)
          });
          // plain comparisons: this looks a million times
          const wrong = (): string | undefined => {
            const { x, y, facingDeg } = bench.yard.pose;
            if (!Number.isFinite(x + y + facingDeg)) return 'not a number';
            if (!(x > 0 && y > 0 && x < mat.width && y < mat.height)) return 'the robot left the walls';
            for (const thing of bench.yard.things) {
              const p = thing.getPosition();
              if (!(p.x > 0 && p.y > 0 && p.x < mat.width && p.y < mat.height)) return 'a thing left the walls';
            }
            for (const m of bench.yard.motors.values()) {
              const { stallNm, freeRadS, ratedV } = m.constants;
              const { volts } = bench.yard.battery;
              const line = stallNm * (Math.abs((m.duty * volts) / ratedV) + Math.abs(m.omega) / freeRadS);
              if (Math.abs(m.duty) > 1) return 'a duty over 1';
              if (Math.abs(m.torque(volts)) > line * 1.000001) return 'a motor above its torque line';
            }
            return undefined;
          };
          bench.onTick = () => {
            const what = wrong();
            if (what) throw new Error(`${what} at ${bench.worldUs} µs`);
          };
          const interpreter = new Interpreter(bench);
          while (interpreter.advance(Infinity) !== 'ended');
          for (const c of bench.trace.channels)
            for (const v of [...c.low, ...c.high]) expect(Number.isFinite(v)).toBe(true);
        }),
        { numRuns: 1000, endOnFailure: true }
      );
    },
    240_000
  );
});
