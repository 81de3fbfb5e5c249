/**
 * The reckoner: each page is one definition, with what it is given, and lines that show a formula with the numbers in it.
 * Sources: circles and wheels are plane geometry; stopping v²/2a from uniform acceleration (any mechanics text); pulses of
 * 1 to 2 ms for a servo are common practice; equal temperament from ISO 16; E24 values from IEC 60063; 1 g is 9.80665 m/s²
 * (ISO 80000-3).
 */
import { BOARD_V, FORWARD_V, ledCurrent, nextE24, PIN_OHM } from '../circuit/led.ts';
import { reckoned, trackMm, type Kit } from '../kit/kit.ts';
import { later } from '../words.ts';
import { GRAVITY as G } from '../units.ts';
import { pulseFor } from '../kit/pulse.ts';
import { circumference, rollForAngle, turnsForAngle, turnsForDistance } from './wheels.ts';

export type Field = {
  key: string;
  name: string;
  unit: string;
  /** what it begins with, from the kit sheet where that knows it */
  begins: (kit: Kit) => number;
  /** it stands on the kit sheet */
  sheet?: true;
  /** channels of the trace, or live values, that it is naturally taken from */
  takes?: readonly string[];
};
export type Line = {
  name: string;
  /** with the numbers in it */ formula: string;
  value: number;
  unit: string;
  places: number;
};
export type Page = {
  key: string;
  title: string;
  fields: readonly Field[];
  /** @returns the line that goes into a block first */
  work: (v: Readonly<Record<string, number>>) => Line[];
};

/** 100 % of a measured move, cm/s. */
const FULL_CM_S = 40;
const A4_HZ = 440;
const DEG = 180 / Math.PI;
const NOTES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];

const n = (x: number, places = 2): string => {
  if (!Number.isFinite(x)) return '…';
  const text = x.toFixed(places);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
};
const wheel: Field = {
  key: 'd',
  name: later('Wheel diameter'),
  unit: 'cm',
  sheet: true,
  begins: (kit) => (reckoned(kit).wheels[0]?.diameterMm ?? 68) / 10
};
const track: Field = {
  key: 't',
  name: later('Track width'),
  unit: 'cm',
  sheet: true,
  begins: (kit) => (trackMm(reckoned(kit)) || 124) / 10
};
const power: Field = {
  key: 'p',
  name: later('Power'),
  unit: '%',
  begins: () => 45,
  takes: ['powerLeft', 'powerRight']
};
const speeding: Field = {
  key: 'a',
  name: later('Acceleration'),
  unit: 'cm/s²',
  sheet: true,
  begins: (kit) => kit.board.accelerationCmS2
};
const given = (key: string, name: string, unit: string, value: number, takes?: readonly string[]): Field => ({
  key,
  name,
  unit,
  begins: () => value,
  ...(takes ? { takes } : {})
});
const line = (name: string, formula: string, value: number, unit: string, places = 2): Line => ({
  name,
  formula,
  value,
  unit,
  places
});

/** How long a measured move takes that ends in brake: it speeds up and slows down evenly, a distance v²/2a each. */
const secondsFor = (s: number, v: number, a: number): Line =>
  s * a >= v * v
    ? line(later('seconds at this power'), `${n(s)} ÷ ${n(v)} cm/s + ${n(v)} cm/s ÷ ${n(a)}`, s / v + v / a, 's')
    : line(later('seconds, too short for full speed'), `2 × √(${n(s)} ÷ ${n(a)})`, 2 * Math.sqrt(s / a), 's');

export const PAGES: readonly Page[] = [
  {
    key: 'distance',
    title: later('Turns for a distance'),
    fields: [wheel, given('s', later('Distance'), 'cm', 80, ['distance']), power, speeding],
    work: ({ d, s, p, a }) => [
      line(later('wheel turns'), `${n(s)} ÷ (π × ${n(d)})`, turnsForDistance(s, d), later('turns')),
      line(later('degrees'), `360 × ${n(turnsForDistance(s, d), 3)}`, 360 * turnsForDistance(s, d), '°', 0),
      secondsFor(s, (p / 100) * FULL_CM_S, a),
      line(later('one turn rolls'), `π × ${n(d)}`, circumference(d), 'cm', 1)
    ]
  },
  {
    key: 'wheel',
    title: later('Wheel size from a measured distance'),
    fields: [wheel, given('a', later('Asked'), 'cm', 80), given('g', later('Measured'), 'cm', 78.5)],
    work: ({ d, a, g }) => [line(later('real diameter'), `${n(d)} × ${n(g)} ÷ ${n(a)}`, (d * g) / a, 'cm', 3)]
  },
  {
    key: 'spot',
    title: later('Turns for an angle'),
    fields: [wheel, track, given('w', later('Angle, on the spot'), '°', 90, ['heading'])],
    work: ({ d, t, w }) => [
      line(later('wheel turns'), `${n(w)} × ${n(t)} ÷ (360 × ${n(d)})`, turnsForAngle(w, t, d), later('turns'), 3),
      line(later('each wheel rolls'), `${n(w)} ÷ 360 × π × ${n(t)}`, rollForAngle(w, t), 'cm'),
      line(
        later('by one wheel alone'),
        `2 × ${n(turnsForAngle(w, t, d), 3)}`,
        2 * turnsForAngle(w, t, d),
        later('turns'),
        3
      )
    ]
  },
  {
    key: 'arc',
    title: later('Driving an arc'),
    fields: [track, given('r', later('Radius'), 'cm', 30), given('w', later('Angle'), '°', 90), power],
    work: ({ t, r, w, p }) => {
      const share = (r - t / 2) / (r + t / 2);
      return [
        line(
          later('inner wheel, power'),
          `${n(p)} × (${n(r)} − ${n(t / 2)}) ÷ (${n(r)} + ${n(t / 2)})`,
          p * share,
          '%',
          1
        ),
        line(
          later('outer wheel rolls'),
          `2π × (${n(r)} + ${n(t / 2)}) × ${n(w)} ÷ 360`,
          (2 * Math.PI * (r + t / 2) * w) / 360,
          'cm',
          1
        ),
        line(
          later('inner wheel rolls'),
          `2π × (${n(r)} − ${n(t / 2)}) × ${n(w)} ÷ 360`,
          (2 * Math.PI * (r - t / 2) * w) / 360,
          'cm',
          1
        ),
        line(later('the middle rolls'), `2π × ${n(r)} × ${n(w)} ÷ 360`, (2 * Math.PI * r * w) / 360, 'cm', 1)
      ];
    }
  },
  {
    key: 'speed',
    title: later('Speed and power'),
    fields: [given('v', later('Speed'), 'cm/s', 18, ['speedLeft', 'speedRight'])],
    work: ({ v }) => [
      line(later('power of a measured move'), `${n(v)} ÷ ${FULL_CM_S} × 100 %`, (v / FULL_CM_S) * 100, '%', 1)
    ]
  },
  {
    key: 'stop',
    title: later('Distance to stop'),
    fields: [
      given('v', later('Speed'), 'cm/s', 20, ['speedLeft', 'speedRight']),
      { ...speeding, name: later('Deceleration') }
    ],
    work: ({ v, a }) => [
      line(later('it still rolls'), `${n(v)}² ÷ (2 × ${n(a)})`, (v * v) / (2 * a), 'cm', 1),
      line(later('for so long'), `${n(v)} ÷ ${n(a)}`, v / a, 's')
    ]
  },
  {
    key: 'servo',
    title: later('Servo: angle, pulse, share'),
    fields: [given('w', later('Angle'), '°', 60, ['servoJ4', 'servoJ5'])],
    work: ({ w }) => [
      line(later('share of its sweep'), `${n(w)} ÷ 180 × 100 %`, (w / 180) * 100, '%', 1),
      line(later('pulse'), `1 ms + ${n(w)} ÷ 180 × 1 ms`, pulseFor(w), 'ms', 3),
      line(later('duty at 50 a second'), `${n(pulseFor(w), 3)} ms ÷ 20 ms × 100 %`, (pulseFor(w) / 20) * 100, '%')
    ]
  },
  {
    key: 'tone',
    title: later('Tone and note'),
    fields: [given('m', later('Half tones above A4'), '', 3)],
    work: ({ m }) => {
      const steps = Math.round(m) + 9;
      const name = `${NOTES[((steps % 12) + 12) % 12]}${4 + Math.floor(steps / 12)}`;
      return [line(`${name}`, `440 × 2^(${n(m)} ÷ 12)`, A4_HZ * Math.pow(2, m / 12), 'Hz')];
    }
  },
  {
    key: 'led',
    title: later('Resistor for an LED'),
    fields: [
      given('u', later('Voltage of the pin'), 'V', BOARD_V),
      given('f', later('Forward voltage of the LED'), 'V', FORWARD_V.red),
      given('i', later('Current'), 'mA', 10),
      given('r', later('Resistance of the pin itself'), 'Ω', PIN_OHM)
    ],
    work: ({ u, f, i, r }) => {
      const ohm = ((u - f) * 1000) / i - r;
      return [
        line(later('resistor'), `(${n(u)} − ${n(f)}) V ÷ ${n(i)} mA − ${n(r)} Ω`, ohm, 'Ω', 0),
        line(later('next one in the series E24'), '', nextE24(ohm), 'Ω', 0),
        line(later('the current then'), '', ledCurrent(u, nextE24(ohm) + r, f) * 1000, 'mA', 1)
      ];
    }
  },
  {
    key: 'threshold',
    title: later('Threshold between two readings'),
    fields: [
      given('a', later('Over dark'), '', 12, ['lineLeft', 'lineRight', 'light']),
      given('b', later('Over light'), '', 88, ['lineLeft', 'lineRight', 'light'])
    ],
    work: ({ a, b }) => [line(later('half way between'), `(${n(a)} + ${n(b)}) ÷ 2`, (a + b) / 2, '', 1)]
  },
  {
    key: 'period',
    title: later('Period, frequency, duty'),
    fields: [given('h', later('On for'), 'ms', 5), given('l', later('Off for'), 'ms', 15)],
    work: ({ h, l }) => [
      line(later('period'), `${n(h)} + ${n(l)}`, h + l, 'ms'),
      line(later('frequency'), `1000 ÷ ${n(h + l)} ms`, 1000 / (h + l), 'Hz'),
      line(later('duty'), `${n(h)} ÷ ${n(h + l)} × 100 %`, (h / (h + l)) * 100, '%', 1)
    ]
  },
  {
    key: 'stick',
    title: later("A stick's way to a servo's sweep"),
    fields: [given('x', later('Stick'), '%', 40), given('c', later('from'), '°', 0), given('e', later('to'), '°', 180)],
    work: ({ x, c, e }) => [
      line(
        later('angle'),
        `${n(c)} + (${n(x)} + 100) ÷ 200 × (${n(e)} − ${n(c)})`,
        c + ((x + 100) / 200) * (e - c),
        '°',
        1
      ),
      line(later('share of the sweep'), `(${n(x)} + 100) ÷ 2`, (x + 100) / 2, '%', 1)
    ]
  },
  {
    key: 'bits',
    title: later('Percent as 8 and 16 bit'),
    fields: [given('p', later('Percent'), '%', 60)],
    work: ({ p }) => [
      line(later('8 bit'), `${n(p)} % × 255`, Math.round((p / 100) * 255), '', 0),
      line(later('16 bit'), `${n(p)} % × 65535`, Math.round((p / 100) * 65535), '', 0)
    ]
  },
  {
    key: 'g',
    title: later('g and m/s²'),
    fields: [given('g', later('Acceleration'), 'g', 0.3, ['accelX', 'accelY', 'accelTotal'])],
    work: ({ g }) => [
      line('m/s²', `${n(g, 3)} × ${G}`, g * G, 'm/s²', 3),
      line('cm/s²', `${n(g, 3)} × ${G * 100}`, g * G * 100, 'cm/s²', 0)
    ]
  },
  {
    key: 'tilt',
    title: later('Tilt from acceleration'),
    fields: [
      given('x', later('Acceleration x, or y'), 'g', -0.5, ['accelX', 'accelY']),
      given('z', later('Acceleration z'), 'g', 0.866, ['accelZ'])
    ],
    // leaning to the right, or away from the person, lowers x, or y: what it shows is the way up
    work: ({ x, z }) => [line(later('lean'), `atan2(−(${n(x, 3)}), ${n(z, 3)})`, Math.atan2(-x, z) * DEG, '°', 1)]
  }
];
