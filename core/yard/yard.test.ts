/** The yard against closed forms. Real block programs on the real bench; the source stands beside each check. */
import { worn } from '../testing/kits.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow, type Kit, resized } from '../kit/kit.ts';
import { noQuirks, quirksOf } from '../kit/quirks.ts';
import { Bench } from '../run/bench.ts';
import { Interpreter } from '../run/interpreter.ts';
import { b, end, hall, logs, log, program, run, start, wait } from '../testing/build.ts';
import { sampleAt, travelled } from '../trace/query.ts';
import { channel } from '../trace/trace.ts';
import { reading, speedOfSound } from './distance.ts';
import { GRAVITY } from '../units.ts';
import { Floor, MAT_FRICTION, type Mat } from './mat.ts';
import { fernBed, longAisle } from './mats.ts';
import { Battery } from './battery.ts';
import { Yard } from './yard.ts';
import { Motor, motorConstants } from './motor.ts';

const cmFrom = (trace: ReturnType<typeof run>): number => (end(trace).x - hall.start.x) * 100;

describe('wheels roll as geometry has it', () => {
  // s = n pi d (plane geometry); 21.4 cm a turn and 3.74 turns for 80 cm are design: devices.md
  it('rolls 21.4 cm a turn with a wheel of 6.8 cm, and 80 cm in 3.74 turns', () => {
    expect(cmFrom(run([b('drive.measure', { amount: 1, unit: 'wheel turns' })]))).toBeCloseTo(21.36, 1);
    expect(cmFrom(run([b('drive.measure', { amount: 3.74, unit: 'wheel turns' })]))).toBeCloseTo(79.9, 1);
  });
  it('rolls 17.6 cm a turn with a wheel of 5.6 cm, and 80 cm in 4.55 turns (common practice)', () => {
    const kit: Kit = resized(barrow, { left: 56, right: 56 });
    expect(cmFrom(run([b('drive.measure', { amount: 1, unit: 'wheel turns' })], { kit }))).toBeCloseTo(17.59, 1);
    expect(cmFrom(run([b('drive.measure', { amount: 4.55, unit: 'wheel turns' })], { kit }))).toBeCloseTo(80.05, 1);
  });
  it('turns on the spot when each wheel rolls angle x track / 2 (Dudek and Jenkin, Computational Principles of Mobile Robotics)', () => {
    const turns = 0.456; // 90 degrees: design, devices.md
    const trace = run([b('wheels.span', { left: 30, right: -30, amount: turns, unit: 'wheel turns' })]);
    expect((end(trace).facingDeg - 90 + 360) % 360).toBeCloseTo((turns * 68 * 2 * 180) / 124, 0);
    expect(travelled(trace)).toBeLessThan(0.002);
  });
  it('drives an arc about the instantaneous centre R = (l/2)(vl + vr)/(vr - vl) (Dudek and Jenkin)', () => {
    // left 40 %, right 20 %: R = 62 mm x 60 / -20, so 186 mm to the right; 90 degrees take the left wheel (186 + 62) pi / 2 mm
    const cm = ((186 + 62) * Math.PI) / 20;
    const { x, y, facingDeg } = end(run([b('wheels.span', { left: 40, right: 20, amount: cm, unit: 'cm' })]));
    expect(facingDeg).toBeGreaterThan(179);
    expect(facingDeg).toBeLessThan(181);
    expect((x - 1.5) * 1000).toBeCloseTo(186, -0.5);
    expect((1.5 - y) * 1000).toBeCloseTo(186, -0.5);
  });
  it('closes a square driven with exact turns', () => {
    const trace = run([
      b(
        'repeat.times',
        { count: 4 },
        { do: [b('drive.measure', { amount: 40 }), b('turn.angle', { side: 'left', angle: 90 })] }
      )
    ]);
    const { x, y } = end(trace);
    expect(Math.sqrt((x - 1.5) * (x - 1.5) + (y - 1.5) * (y - 1.5))).toBeLessThan(0.008);
  });
  it('bends by L e / track when one wheel is 1 % larger, as geometry gives', () => {
    const quirks = worn({ left: { diameter: 1.005 }, right: { diameter: 0.995 } });
    const trace = run([b('drive.measure', { amount: 100 })], { quirks });
    // the wheels roll 1.005 m and 0.995 m: the heading changes by 0.01 m / 0.124 m
    expect(end(trace).facingDeg - 90).toBeCloseTo(((0.01 / 0.124) * 180) / Math.PI, 1);
    // a square of four such sides opens: each corner lies off by the bend; compare with the exact chain of four arcs
    const square = run(
      [
        b(
          'repeat.times',
          { count: 4 },
          { do: [b('drive.measure', { amount: 40 }), b('turn.angle', { side: 'left', angle: 90 })] }
        )
      ],
      { quirks }
    );
    let [px, py, a] = [0, 0, 0];
    for (let i = 0; i < 4; i++) {
      const bend = (-0.4 * 0.01) / 0.124;
      const R = 0.4 / bend;
      px += R * (Math.sin(a + bend) - Math.sin(a));
      py += R * (Math.cos(a) - Math.cos(a + bend));
      a += bend + Math.PI / 2;
    }
    const { x, y } = end(square);
    expect(Math.sqrt(px * px + py * py)).toBeGreaterThan(0.02);
    expect((x - 1.5 - px) * 1000).toBeLessThan(6);
    expect(Math.abs(x - 1.5 - px)).toBeLessThan(0.007);
    expect(Math.abs(y - 1.5 - py)).toBeLessThan(0.007);
  });
});

describe('motors', () => {
  it('follow the torque line of a permanent-magnet DC motor: stall torque at rest, none at the free speed', () => {
    const motor = new Motor(motorConstants(barrow));
    motor.state = 'driven';
    motor.duty = 1;
    expect(motor.torque(7.4)).toBeCloseTo(0.14, 6);
    motor.omega = 2.3 * 2 * Math.PI;
    expect(motor.torque(7.4)).toBeCloseTo(0, 6);
    motor.omega = 2.3 * Math.PI;
    expect(motor.torque(7.4)).toBeCloseTo(0.07, 6);
  });
  it('reach 44.9 cm/s at full duty, where torque equals friction', () => {
    const trace = run([b('wheels.run', { left: 100, right: 100 }), wait(1.5), b('wheels.stop')]);
    const v = sampleAt(channel(trace, 'speedLeft')!, 1490);
    expect(v).toBeCloseTo(2.3 * 2 * Math.PI * 3.4 * (1 - 0.012 / 0.14), 1);
    expect(v).toBeCloseTo(44.9, 1);
  });
  it('run up with the time constant (J + m r^2 / 2) omega_0 / tau_stall = 0.099 s', () => {
    // a light start keeps the wheels from slipping, so the closed form holds
    const trace = run([b('wheels.run', { left: 50, right: 50 }), wait(1.5)]);
    const speed = channel(trace, 'speedLeft')!;
    const top = sampleAt(speed, 1400);
    let tick = 0;
    while (sampleAt(speed, tick) < top * (1 - Math.exp(-1))) tick++;
    expect(tick / 1000).toBeGreaterThan(0.092);
    expect(tick / 1000).toBeLessThan(0.106);
  });
  it('coast 4.9 cm and brake 1.3 cm from 20 cm/s', () => {
    const roll = (ending: string) => {
      const trace = run([b('drive.measure', { amount: 40, power: 50, ending: 'coast' }), b('wheels.stop', { ending })]);
      const moved = trace.events.find((e) => e.type === 'moved')!;
      const x = channel(trace, 'x')!;
      return (sampleAt(x, trace.ticks - 1) - sampleAt(x, moved.tUs / 1000)) * 100;
    };
    // friction on both wheels against robot and wheels: v^2 / 2a with a = (2 tau / r) / (m + 2 J / r^2)
    const a = (2 * 0.012) / 0.034 / (0.62 + (2 * 6e-4) / (0.034 * 0.034));
    expect((0.2 * 0.2) / (2 * a)).toBeCloseTo(0.047, 3);
    expect(roll('coast')).toBeGreaterThan(4.6);
    expect(roll('coast')).toBeLessThan(5.1);
    expect(roll('brake')).toBeGreaterThan(1.1);
    expect(roll('brake')).toBeLessThan(1.5);
  });
  it('sag and drain the battery on the device, and hold 7.4 V in rehearsal', () => {
    const steps = [b('wheels.run', { left: 60, right: 60 }), wait(3), b('wheels.stop')];
    const held = channel(run(steps), 'volts')!;
    expect(sampleAt(held, 10)).toBe(7.4);
    expect(sampleAt(held, 2500)).toBe(7.4);
    const device = channel(run(steps, { quirks: { ...noQuirks, charge: 0.8 }, onBattery: true }), 'volts')!;
    // the first ticks draw the stall current: open circuit 8.04 V less I x 0.25 ohm
    expect(sampleAt(device, 1)).toBeLessThan(7.95);
    expect(sampleAt(device, 2900)).toBeLessThan(
      sampleAt(channel(run([wait(3)], { quirks: { ...noQuirks, charge: 0.8 }, onBattery: true }), 'volts')!, 2900)
    );
  });
});

describe('the battery', () => {
  /** its current when both wheels are held at a speed and driven with a duty, A */
  const drawn = (duty: number, omega: number, horn = 90): number => {
    const yard = new Yard({
      kit: barrow,
      mat: hall,
      seed: 1,
      noise: false,
      onBattery: true,
      quirks: { ...noQuirks, charge: 1 }
    });
    yard.lift();
    for (const motor of yard.motors.values()) Object.assign(motor, { state: 'driven', duty, omega });
    yard.servos.get('J4')!.target = horn;
    const { battery } = yard;
    const before = battery.charge!;
    yard.step();
    return ((before - battery.charge!) * 3600 * barrow.battery.ampereHours) / 0.001;
  };
  const board = 0.15;
  it('gives duty times the current of the motor, as an ideal bridge does (energy in = energy out)', () => {
    // at stall both take stall torque x omega_0 / volts of u; 8.4 V drive 8.4 / 7.4 of what 7.4 V do
    const amps = (u: number): number => (barrow.motor.stallNm * u * barrow.motor.freeTurnsPerS * 2 * Math.PI) / 7.4;
    const u = 8.4 / 7.4;
    expect(drawn(1, 0) - board).toBeCloseTo(2 * amps(u), 3);
    expect(drawn(0.5, 0) - board).toBeCloseTo(2 * 0.5 * amps(0.5 * u), 3);
    expect(drawn(-0.5, 0) - board).toBeCloseTo(2 * 0.5 * amps(0.5 * u), 3);
  });
  it('gives the board 0.15 A, and a servo 0.25 A more while it moves (devices.md)', () => {
    expect(drawn(0, 0)).toBeCloseTo(board, 6);
    expect(drawn(0, 0, 60)).toBeCloseTo(board + 0.25, 6);
  });
  it('gets some back from a wheel that turns faster than it is driven, and is never more than full', () => {
    expect(drawn(0.2, 10) - board).toBeLessThan(-0.02);
    const battery = new Battery(barrow, 1);
    battery.draw(-5, 1);
    expect(battery.charge).toBe(1);
  });
});

describe('a measured move on another machine', () => {
  it('is fed forward by its own motor and mass: it stays near its mark while it speeds up', () => {
    /** furthest that the wheel is off the trapezoid while it speeds up, mm */
    const lag = (kit: typeof barrow): number => {
      const trace = run([b('drive.measure', { amount: 30, power: 50 })], { kit });
      const turns = channel(trace, 'turnsLeft')!;
      let most = 0;
      for (let ms = 20; ms < 330; ms++)
        most = Math.max(most, Math.abs(sampleAt(turns, ms) * Math.PI * 68 - 0.5 * 600 * (ms / 1000) ** 2));
      return most;
    };
    const heavy = {
      ...barrow,
      chassis: { ...barrow.chassis, massKg: 3 },
      motor: { ...barrow.motor, stallNm: 0.5, inertiaKgM2: 0.003, frictionNm: 0.05 }
    };
    expect(lag(barrow)).toBeLessThan(2.5);
    expect(lag(heavy)).toBeLessThan(2.5);
  });
  it('keeps its own reference when another stack zeroes the heading or the wheels', () => {
    for (const zero of ['sense.zeroheading', 'sense.zerowheels'])
      for (const [move, facing] of [
        [b('turn.gyro', { side: 'right', angle: 90 }), 180],
        [b('turn.angle', { side: 'right', angle: 90 }), 180],
        [b('drive.facing', { amount: 30, heading: 0 }), 90]
      ] as const) {
        const p = program(start(move), start(wait(0.5), b(zero)));
        expect(end(run(p)).facingDeg, `${zero} ${move.kind}`).toBeCloseTo(facing, 0);
      }
  });
});

describe('ground', () => {
  it('carries the weight by the places of wheels and caster (moments about the caster, statics)', () => {
    const carries = (massAhead: number, casterBehind: number) => {
      const yard = new Yard({
        kit: {
          ...barrow,
          chassis: {
            ...barrow.chassis,
            massAt: { xMm: massAhead, yMm: 0 },
            supports: [{ xMm: massAhead - casterBehind, yMm: 0 }]
          }
        },
        mat: hall,
        seed: 1,
        noise: false
      });
      expect(yard.wheels[0].load).toBeCloseTo(yard.wheels[1].load, 12);
      return yard.wheels[0].load;
    };
    // 48 mm behind and 12 mm ahead of the mass: the wheels carry 48 / 60
    expect(carries(-12, 48)).toBeCloseTo((0.62 * GRAVITY * 0.8) / 2, 9);
    expect(carries(-12, 12)).toBeCloseTo((0.62 * GRAVITY * 0.5) / 2, 9);
    expect(carries(0, 48)).toBeCloseTo((0.62 * GRAVITY) / 2, 9);
    expect(carries(20, 48)).toBeCloseTo((0.62 * GRAVITY) / 2, 9);
  });
  it('never accelerates beyond mu g (Coulomb)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -100, max: 100 }),
        fc.integer({ min: -100, max: 100 }),
        fc.integer({ min: -100, max: 100 }),
        (l, r, l2) => {
          const trace = run([
            b('wheels.run', { left: l, right: r }),
            wait(0.4),
            b('wheels.run', { left: l2, right: -r }),
            wait(0.4),
            b('wheels.stop')
          ]);
          const [x, y] = [channel(trace, 'x')!, channel(trace, 'y')!];
          // the middle of the axle over 20 ms, where rounding to 1 um does not count
          for (let t = 40; t < trace.ticks; t += 10) {
            const acc = (c: typeof x) =>
              (sampleAt(c, t) - 2 * sampleAt(c, t - 20) + sampleAt(c, t - 40)) / (0.02 * 0.02);
            const a = Math.sqrt(acc(x) * acc(x) + acc(y) * acc(y));
            // the axle turns about the centre of mass 12 mm behind it: its own share of angular acceleration is allowed for
            expect(a).toBeLessThan(MAT_FRICTION * GRAVITY * 1.25);
          }
        }
      ),
      { numRuns: 25 }
    );
  });
  it('lets the wheels spin on wet moss, where friction is 0.15', () => {
    const moss: Mat = {
      ...hall,
      areas: [
        {
          points: [
            [0, 0],
            [3, 0],
            [3, 3],
            [0, 3]
          ],
          colour: '#335533',
          reflectance: 30,
          friction: 0.15
        }
      ]
    };
    const steps = [b('wheels.run', { left: 100, right: 100 }), wait(0.2)];
    const grip = run(steps, { limitS: 0.2 });
    const slick = run(steps, { mat: moss, limitS: 0.2 });
    expect(travelled(slick)).toBeLessThan(travelled(grip) * 0.75);
    // at most mu g t^2 / 2
    expect(travelled(slick)).toBeLessThan(0.15 * GRAVITY * 0.2 * 0.2 * 0.5);
  });
});

describe('walls', () => {
  it('hold the robot less than 0.5 mm from where they stand', () => {
    const wallX = 1.8;
    const mat: Mat = { ...hall, walls: [{ x: wallX + 0.05, y: 1.5, width: 0.1, height: 1, colour: '#000000' }] };
    const trace = run([b('wheels.run', { left: 30, right: 30 }), wait(3), b('wheels.stop'), log(b('sense.nose'))], {
      mat
    });
    const noseTip = end(trace).x + 0.071;
    expect(Math.abs(noseTip - wallX)).toBeLessThan(0.0005);
    expect(logs(trace)).toEqual(['True']);
    expect(trace.events.some((e) => e.type === 'touch' && e.nose && e.what === 'a wall' && e.speedCmS > 8)).toBe(true);
  });
  it('let it through an aisle 2 mm wider than itself', () => {
    const gap = 0.14;
    const mat: Mat = {
      ...hall,
      walls: [
        { x: 2, y: 1.5 + gap / 2 + 0.1, width: 0.6, height: 0.2, colour: '#000000' },
        { x: 2, y: 1.5 - gap / 2 - 0.1, width: 0.6, height: 0.2, colour: '#000000' }
      ]
    };
    const trace = run([b('drive.measure', { amount: 100 })], { mat });
    expect(end(trace).x).toBeGreaterThan(2.49);
  });
  it('are never left by anything, whatever the program does', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -100, max: 100 }), fc.integer({ min: -100, max: 100 })), {
          minLength: 3,
          maxLength: 6
        }),
        (duties) => {
          const trace = run(
            duties.flatMap(([l, r]) => [b('wheels.run', { left: l, right: r }), wait(1)]),
            { mat: longAisle, limitS: 7 }
          );
          for (let t = 0; t < trace.ticks; t += 50) {
            const [x, y] = ['x', 'y'].map((k) => sampleAt(channel(trace, k)!, t));
            expect(Number.isFinite(x) && Number.isFinite(y)).toBe(true);
            expect(x > 0.03 && x < 1.47 && y > 0.15 && y < 0.45).toBe(true);
          }
        }
      ),
      { numRuns: 10 }
    );
  });
  it('push a loose pot before the robot', () => {
    const mat: Mat = { ...hall, things: [{ x: 1.7, y: 1.5, radius: 0.04, massKg: 0.15, colour: '#aa5533' }] };
    const bench = new Bench({
      program: program(start(b('drive.measure', { amount: 40 }))),
      kit: barrow,
      mat,
      seed: 1,
      noise: false
    });
    const interpreter = new Interpreter(bench);
    while (interpreter.advance(Infinity) !== 'ended');
    expect(bench.yard.things[0].getPosition().x).toBeGreaterThan(1.95);
  });
});

describe('sensors', () => {
  it('take sound to travel at 331.3 + 0.606 T m/s (standard approximation; 343.4 m/s at 20 degrees)', () => {
    expect(speedOfSound(20)).toBeCloseTo(343.42, 2);
    expect(speedOfSound(0)).toBeCloseTo(331.3, 2);
    // the sensor takes the air for 20 degrees: at 0 degrees everything seems further
    expect(reading(1, 0, 0).cm).toBeCloseTo((100 * 343.42) / 331.3, 1);
    expect(reading(undefined, 20, 0)).toEqual({ cm: 180, echo: false });
    expect(reading(0.01, 20, 0).cm).toBe(4);
  });
  it('see a wall ahead at its distance from the nose, and nothing in an empty hall beyond 180 cm', () => {
    const mat: Mat = { ...hall, walls: [{ x: 2.1, y: 1.5, width: 0.1, height: 1, colour: '#000000' }] };
    expect(Number(logs(run([log(b('sense.distance'))], { mat }))[0])).toBeCloseTo((2.05 - 1.5 - 0.071) * 100, 1);
    const far = run([log(b('sense.distance')), log(b('sense.ahead'))], {
      mat: { ...hall, width: 6, start: { x: 1, y: 1.5, facingDeg: 90 } }
    });
    expect(logs(far)).toEqual(['180', 'False']);
  });
  it('meet a post of 3 cm anywhere in the cone and within range', () => {
    const missed: string[] = [];
    for (const far of [0.3, 0.7, 1.1, 1.5, 1.78])
      for (let deg = -10.5; deg <= 10.5; deg += 0.35) {
        const a = (deg * Math.PI) / 180;
        const nose = { x: 1 + (150 - 85 + 6) / 1000, y: 2 };
        const things = [
          {
            x: nose.x + far * Math.cos(a),
            y: nose.y + far * Math.sin(a),
            radius: 0.015,
            massKg: 0.1,
            colour: '#333333'
          }
        ];
        const mat: Mat = { ...hall, width: 4, height: 4, start: { x: 1, y: 2, facingDeg: 90 }, things };
        const yard = new Yard({ kit: barrow, mat, seed: 1, noise: false });
        const read = () => yard.distances.get('J7')!.reads;
        if (!read().echo || Math.abs(read().cm - (far - 0.015) * 100) > 0.8) missed.push(`${far} m, ${deg}°`);
      }
    expect(missed).toEqual([]);
  });
  it('get no echo from a wall met more than 60 degrees off its normal', () => {
    const wall = (turnDeg: number): Mat => ({
      ...hall,
      width: 8,
      height: 8,
      start: { x: 4, y: 4, facingDeg: 90 },
      walls: [{ x: 4.5, y: 4, width: 0.02, height: 1.6, turnDeg, colour: '#000000' }]
    });
    expect(logs(run([log(b('sense.ahead'))], { mat: wall(20) }))).toEqual(['True']);
    expect(logs(run([log(b('sense.ahead'))], { mat: wall(75) }))).toEqual(['False']);
  });
  it('read the mat under a spot of 4 mm: black 0, white 100, half way on an edge', () => {
    const floor = new Floor({
      ...hall,
      reflectance: 100,
      areas: [
        {
          points: [
            [1, 0],
            [3, 0],
            [3, 3],
            [1, 3]
          ],
          colour: '#000000',
          reflectance: 0
        }
      ]
    });
    expect(floor.spot(0.9, 1)).toBe(100);
    expect(floor.spot(1.1, 1)).toBe(0);
    expect(floor.spot(1, 1)).toBeGreaterThan(30);
    expect(floor.spot(1, 1)).toBeLessThan(70);
    expect(floor.spot(-5, 1)).toBe(100);
  });
  it('meet the dark board of the Fern bed, light = 1 and dark = 0 (convention of the trade)', () => {
    const trace = run(
      [
        b('wheels.run', { left: 30, right: 30 }),
        b('wait.until', { condition: b('sense.over', { sensor: 'J8' }) }),
        log(b('sense.line', { sensor: 'J8' })),
        b('wheels.stop')
      ],
      { mat: fernBed, noise: true }
    );
    expect(Number(logs(trace)[0])).toBeLessThan(50);
  });
  it('turn the gyro clockwise from 0 up to 360, with the bias of the device', () => {
    const trace = run([b('turn.angle', { side: 'left', angle: 90 }), wait(0.5), log(b('sense.heading'))]);
    expect(Number(logs(trace)[0])).toBeCloseTo(270, 0);
    const drift = run([wait(10), log(b('sense.heading'))], { quirks: { ...noQuirks, gyroBiasDegS: 0.1 } });
    expect(Number(logs(drift)[0])).toBeCloseTo(1, 1);
  });
  it('move the servo 60 degrees in 0.12 s', () => {
    const trace = run([b('servo.angle', { servo: 'J4', angle: 150 }), wait(1)]);
    const angle = channel(trace, 'servoJ4')!;
    expect(sampleAt(angle, 60)).toBeCloseTo(120, 0);
    expect(sampleAt(angle, 125)).toBe(150);
  });
});

describe('each device is an individual', () => {
  it('has quirks in the stated ranges, the same ones every time', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), (serial) => {
        const q = quirksOf(serial, barrow);
        expect(quirksOf(serial, barrow)).toEqual(q);
        for (const { diameter, torque, free } of Object.values(q.wheels)) {
          expect(Math.abs(diameter - 1)).toBeLessThanOrEqual(0.01);
          for (const m of [torque, free]) expect(Math.abs(m - 1)).toBeLessThanOrEqual(0.04);
        }
        expect(Math.abs(q.spread - 1)).toBeLessThanOrEqual(0.015);
        expect(Math.abs(q.servoOffsetDeg)).toBeLessThanOrEqual(3);
      })
    );
    expect(quirksOf('MB-BAR-0003', barrow)).not.toEqual(quirksOf('MB-BAR-0005', barrow));
  });
});
