/** What a device senses, as the panel of live values shows it: where it stands in the trace, and the block that reads it. */
import { hasWheels, wheelsAt, type Kit } from '../../../../core/kit/kit.ts';
import { lineKey, wheelKey } from '../../../../core/kit/keys.ts';
import { later, say, word } from '../../../../core/words.ts';

export type Sensor = {
  key: string;
  name: string;
  unit: string;
  range: [number, number];
  digits: number;
  kind: string;
  slots: Record<string, string>;
};

const AXES = ['x', 'y', 'z', 'total'] as const;
const KEY_OF = { x: 'accelX', y: 'accelY', z: 'accelZ', total: 'accelTotal' };

export function sensorsOf(kit: Kit): Sensor[] {
  const one = (
    key: string,
    name: string,
    unit: string,
    range: [number, number],
    digits: number,
    kind: string,
    slots: Record<string, string> = {}
  ): Sensor => ({ key, name, unit, range, digits, kind, slots });
  const motion = AXES.map((axis) =>
    one(
      KEY_OF[axis],
      say('acceleration {axis}', { axis: word(axis) }),
      'g',
      axis === 'total' ? [0, 14] : [-8, 8],
      2,
      'sense.acceleration',
      { axis }
    )
  );
  const has = (type: string) => kit.parts.some((p) => p.type === type);
  if (!hasWheels(kit))
    return [
      one('leanSideways', say('lean sideways'), '°', [-180, 180], 0, 'sense.lean', { way: 'sideways' }),
      one('leanForwards', say('lean forwards'), '°', [-180, 180], 0, 'sense.lean', { way: 'forwards' }),
      one('leanTurned', say('turned'), '°', [-180, 180], 0, 'sense.lean', { way: 'turned' }),
      ...motion,
      one('light', say('light'), '', [0, 100], 0, 'sense.light'),
      one('temperature', say('temperature'), '°C', [-20, 60], 1, 'sense.temperature'),
      one('moisture', say('moisture'), '', [0, 100], 0, 'sense.moisture'),
      one('edgeLeft', say('edge left'), '', [0, 1], 0, 'sense.edge', { edge: 'left' }),
      one('edgeRight', say('edge right'), '', [0, 1], 0, 'sense.edge', { edge: 'right' })
    ];
  const lines = kit.parts
    .filter((p) => p.type === 'line')
    .map(({ name, socket }) =>
      one(lineKey(kit, socket), say('line {name}', { name }), '', [0, 100], 1, 'sense.line', { sensor: socket })
    );
  return [
    ...(has('distance') ? [one('distance', say('distance ahead'), 'cm', [4, 180], 1, 'sense.distance')] : []),
    ...lines,
    one('heading', say('heading'), '°', [0, 360], 1, 'sense.heading'),
    ...(kit.chassis.rim
      ? [one('rim', say('rim'), '', [0, 1], 0, 'sense.rim')]
      : [one('nose', say('nose'), '', [0, 1], 0, 'sense.nose')]),
    ...(['left', 'right'] as const).flatMap((wheel) =>
      wheelsAt(kit, wheel)
        .slice(0, 1)
        .map(({ id, name }) =>
          one(
            wheelKey('speed', id),
            say('speed of the {name}', { name: word(name) }),
            'cm/s',
            [-45, 45],
            1,
            'sense.wheelspeed',
            { wheel }
          )
        )
    ),
    ...motion
  ];
}
export const SPANS = [2, 5, 10, 30] as const;
export const NOTHING_YET = later('no value yet');
