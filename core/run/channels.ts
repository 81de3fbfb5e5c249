/** What a run of a kit records, a sample a tick: each channel with how it is read off the machine. */
import { headingAt } from '../units.ts';
import { later } from '../words.ts';
import { lineKey, wheelKey } from '../kit/keys.ts';
import { hasWheels, inSockets, type Kit, type Part, type Wheel } from '../kit/kit.ts';
import type { PartOf } from '../kit/parts/part.ts';
import type { ChannelSpec } from '../trace/trace.ts';
import type { Hand } from '../yard/hand.ts';
import type { Mat } from '../yard/mat.ts';
import type { Motor } from '../yard/motor.ts';
import type { Yard } from '../yard/yard.ts';

type Seen = {
  readonly yard: Yard;
  readonly hand: Hand;
  heading(): number;
  noseTouched(): boolean;
  rimTouched(): boolean;
  edgeTouched(side: 'left' | 'right'): boolean;
  light(): number;
  temperature(): number;
  moisture(): number;
  lampMa(): number;
};
export type ReadChannel = ChannelSpec & { read: (machine: Seen) => number };

const power = (motor: Motor | undefined): number => (motor?.state === 'driven' ? motor.duty * 100 : 0);
const turns = (motor: Motor | undefined): number => (motor ? motor.angle / (2 * Math.PI) : 0);

/** @param things how many loose things lie on the mat */
export function channelsOf(kit: Kit, things: number): ReadChannel[] {
  const rolling = kit.wheels.map((w, i) => wheel(w, i));
  return [
    {
      key: 'x',
      title: later('Place x'),
      unit: 'm',
      scale: 1e-6,
      wide: true,
      read: (m) => m.yard.robot.getPosition().x
    },
    {
      key: 'y',
      title: later('Place y'),
      unit: 'm',
      scale: 1e-6,
      wide: true,
      read: (m) => m.yard.robot.getPosition().y
    },
    {
      key: 'facing',
      title: later('Facing'),
      unit: '°',
      scale: 1e-4,
      wide: true,
      read: (m) => headingAt(m.yard.facingDeg, 4)
    },
    ...(hasWheels(kit) ? [...[0, 1, 2].flatMap((k) => rolling.map((w) => w[k])), ...sensing(kit)] : inHand),
    { key: 'accelX', title: later('Acceleration x'), unit: 'g', scale: 0.001, read: (m) => m.hand.seen.x },
    { key: 'accelY', title: later('Acceleration y'), unit: 'g', scale: 0.001, read: (m) => m.hand.seen.y },
    { key: 'accelZ', title: later('Acceleration z'), unit: 'g', scale: 0.001, read: (m) => m.hand.seen.z },
    { key: 'accelTotal', title: later('Acceleration'), unit: 'g', scale: 0.001, read: (m) => m.hand.total },
    { key: 'lifted', title: later('Held by a hand'), unit: '', scale: 1, read: (m) => (m.yard.lifted ? 1 : 0) },
    { key: 'volts', title: later('Battery'), unit: 'V', scale: 0.001, read: (m) => m.yard.battery.volts },
    ...ofParts(kit, ['servo', 'spin', 'lamp', 'motor']),
    ...Array.from({ length: things }, (_, i) =>
      (['x', 'y'] as const).map((axis): ReadChannel => ({
        key: `thing${i}${axis}`,
        title: `Loose thing ${i + 1}, ${axis}`,
        unit: 'm',
        scale: 1e-4,
        wide: true,
        read: (m) => m.yard.things[i].getPosition()[axis]
      }))
    ).flat()
  ];
}
const LINES: Record<string, string> = { lineLeft: later('Line left'), lineRight: later('Line right') };
/** What is recorded of each kind of part. A motor that drives a wheel is told with that wheel. */
const OF_PARTS: { readonly [T in Part['type']]: (part: PartOf<T>, kit: Kit) => ReadChannel[] } = {
  motor: ({ socket, name, drives }) =>
    drives
      ? []
      : [
          {
            key: `power${socket}`,
            title: name,
            unit: '%',
            scale: 0.01,
            read: (m) => power(m.yard.motors.get(socket))
          },
          {
            key: `turns${socket}`,
            title: name,
            unit: 'turns',
            scale: 1e-4,
            wide: true,
            read: (m) => turns(m.yard.motors.get(socket))
          }
        ],
  servo: ({ socket, name }) => [
    { key: `servo${socket}`, title: name, unit: '°', scale: 0.01, read: (m) => m.yard.servos.get(socket)!.angle }
  ],
  spin: ({ socket, name }) => [
    { key: `servo${socket}`, title: name, unit: '°', scale: 0.02, read: (m) => m.yard.spins.get(socket)!.angle }
  ],
  lamp: ({ ohm }) =>
    ohm === undefined
      ? []
      : [{ key: 'lampMa', title: later('Current of the LED'), unit: 'mA', scale: 0.1, read: (m) => m.lampMa() }],
  distance: ({ socket }, { parts }) => [
    {
      key: parts.find((p) => p.type === 'distance')?.socket === socket ? 'distance' : `distance${socket}`,
      title: later('Distance ahead'),
      unit: 'cm',
      scale: 0.1,
      read: (m) => m.yard.distances.get(socket)!.reads.cm
    }
  ],
  line: ({ socket, name }, kit) => [
    {
      key: lineKey(kit, socket),
      title: LINES[lineKey(kit, socket)] ?? name,
      unit: '',
      scale: 0.01,
      read: (m) => m.yard.lines.get(socket)!.reads
    }
  ],
  colour: () => []
};
const ofParts = (kit: Kit, types: readonly Part['type'][]): ReadChannel[] =>
  inSockets(kit)
    .filter((p) => types.includes(p.type))
    .flatMap((p) => (OF_PARTS[p.type] as (part: Part, kit: Kit) => ReadChannel[])(p, kit));
/** Of a wheel: its power, its speed and its turns. */
function wheel({ id, name }: Wheel, i: number): ReadChannel[] {
  const title = (said: string, of: Record<string, string>): string => of[id] ?? `${said} of the ${name}`;
  return [
    {
      key: wheelKey('power', id),
      title: title('Power', { left: later('Wheel power left'), right: later('Wheel power right') }),
      unit: '%',
      scale: 0.01,
      read: (m) => power(m.yard.wheels[i].motor)
    },
    {
      key: wheelKey('speed', id),
      title: title('Speed', { left: later('Wheel speed left'), right: later('Wheel speed right') }),
      unit: 'cm/s',
      scale: 0.01,
      read: (m) => (m.yard.wheels[i].motor?.omega ?? 0) * m.yard.wheels[i].radius * 100
    },
    {
      key: wheelKey('turns', id),
      title: title('Turns', { left: later('Wheel left'), right: later('Wheel right') }),
      unit: 'turns',
      scale: 1e-4,
      wide: true,
      read: (m) => turns(m.yard.wheels[i].motor)
    }
  ];
}
/** What a robot on wheels senses. */
const sensing = (kit: Kit): ReadChannel[] => [
  ...ofParts(kit, ['distance']),
  {
    key: 'heading',
    title: later('Heading'),
    unit: '°',
    scale: 0.02,
    read: (m) => {
      const h = m.heading();
      return h >= 359.99 ? 0 : h;
    }
  },
  ...ofParts(kit, ['line', 'colour']),
  ...(kit.chassis.rim
    ? [{ key: 'rim', title: later('Rim'), unit: '', scale: 1, read: (m: Seen) => (m.rimTouched() ? 1 : 0) }]
    : [{ key: 'nose', title: later('Nose'), unit: '', scale: 1, read: (m: Seen) => (m.noseTouched() ? 1 : 0) }])
];
/** What a board for the hand records. */
const inHand: ReadChannel[] = [
  { key: 'leanSideways', title: later('Lean sideways'), unit: '°', scale: 0.01, read: (m) => m.hand.lean.sideways },
  { key: 'leanForwards', title: later('Lean forwards'), unit: '°', scale: 0.01, read: (m) => m.hand.lean.forwards },
  { key: 'leanTurned', title: later('Turned'), unit: '°', scale: 0.01, read: (m) => m.hand.lean.turned },
  { key: 'height', title: later('Height of the toss'), unit: 'cm', scale: 0.1, read: (m) => m.hand.height * 100 },
  { key: 'light', title: later('Light'), unit: '', scale: 0.1, read: (m) => m.light() },
  { key: 'temperature', title: later('Temperature'), unit: '°C', scale: 0.1, read: (m) => m.temperature() },
  { key: 'moisture', title: later('Moisture'), unit: '', scale: 0.1, read: (m) => m.moisture() },
  { key: 'edgeLeft', title: later('Edge left'), unit: '', scale: 1, read: (m) => (m.edgeTouched('left') ? 1 : 0) },
  { key: 'edgeRight', title: later('Edge right'), unit: '', scale: 1, read: (m) => (m.edgeTouched('right') ? 1 : 0) }
];
/** The same without the reading: what a trace says of its channels. */
export const channelSpecs = (kit: Kit, mat: Mat): ChannelSpec[] =>
  channelsOf(kit, mat.things.length).map(({ read: _, ...spec }) => spec);
