import { describe, expect, it } from 'vitest';
import {
  barrow,
  diameterMm,
  hauler,
  kits,
  motorOf,
  motorsAt,
  partAt,
  reckoned,
  saucer,
  trackMm,
  type Kit
} from '../../kit/kit.ts';
import { checkWiring } from '../../kit/wiring.ts';
import { KITS } from '../../testing/kits.ts';
import { b, program, start, wait } from '../../testing/build.ts';
import { lookOverText } from '../lookover/text.ts';
import { deviceOf, fitted } from './fit.ts';
import { printPython, THINGS } from './print.ts';
import { readPython } from './read.ts';

const top = (...lines: string[]): string => `from mossbell import *\n\n${lines.join('\n')}\n`;

describe('the parts that a text names', () => {
  it('come into the kit: sockets, diameters, track', () => {
    const text = top(
      'wheels = Wheels(left="J3", right="J2", diameter_mm=(80, 79.5), track_mm=130)',
      'distance = Distance("J10")',
      'gate = Servo("J6")'
    );
    const { kit, lost } = fitted(text, barrow);
    expect(lost).toEqual([]);
    expect(motorsAt(kit, 'left')[0]).toMatchObject({ socket: 'J3', name: 'left wheel', mounted: 'mirrored' });
    expect(motorsAt(kit, 'right')[0].socket).toBe('J2');
    expect([diameterMm(kit, 'left'), diameterMm(kit, 'right'), trackMm(kit)]).toEqual([80, 79.5, 130]);
    expect(kit.parts.filter((p) => p.type === 'distance').map((p) => p.socket)).toEqual(['J10']);
    expect(partAt(kit, 'J6')).toMatchObject({ type: 'servo', name: 'gate' });
    expect(partAt(kit, 'J1')).toBeUndefined();
    expect(checkWiring(kit)).toEqual([]);
  });
  it('of four wheels go side by side, those of three by their places; nothing changes where the text says the same', () => {
    const line = (kit: Kit) => `wheels = ${THINGS.wheels(kit)}`;
    for (const kit of [hauler, saucer]) expect(fitted(top(line(kit)), kit)).toEqual({ kit, lost: [] });
    const swapped = fitted(top(line(hauler).replace('left=("J1", "J2")', 'left=("J2", "J1")')), hauler).kit;
    expect(['frontLeft', 'rearLeft'].map((id) => motorOf(swapped, id)!.name)).toEqual(['alder', 'willow']);
    expect(checkWiring(swapped)).toEqual([]);
    const text = line(saucer)
      .replace('("J2", -66, 0, 90)', '("J2", -70, 1.5, 90)')
      .replace('diameter_mm=48', 'diameter_mm=(48, 47, 48.5)');
    const { kit, lost } = fitted(top(text), saucer);
    expect(lost).toEqual([]);
    expect(kit.wheels.map((w) => w.diameterMm)).toEqual([48, 47, 48.5]);
    expect(kit.wheels[1].at).toEqual({ xMm: -70, yMm: 1.5, deg: 90 });
    expect(line(kit)).toBe(text);
    const far = fitted(top(line(saucer).replace('-66, 0, 90', '-6600, 0, 90')), saucer);
    expect([far.kit, far.lost.length]).toEqual([saucer, 1]);
  });
  it('are left as they are where the text says the same', () => {
    for (const { kit } of Object.values(KITS)) {
      const p = program(
        start(
          b('drive.measure'),
          b('servo.angle', { servo: 'J4' }),
          b('motor.run', { motor: 'J1' }),
          b('wait.until', { condition: b('sense.ahead') }),
          b('wait.until', { condition: b('sense.over', { sensor: 'J9' }) })
        )
      );
      const text = printPython(p, kit).text;
      const parts = (k: Kit) => [...k.parts].sort((x, y) => (x.socket < y.socket ? -1 : 1));
      if (!kit.parts.some((x) => x.socket === 'J9' && x.type === 'line')) continue;
      const fit = fitted(text, kit);
      expect(fit.lost).toEqual([]);
      expect(parts(fit.kit)).toEqual(parts(kit));
      expect(reckoned(fit.kit)).toEqual(reckoned(kit));
    }
  });
  it('that cannot be are told line by line', () => {
    const text = top(
      'wheels = Wheels(left="J1", right="J2", diameter_mm=900, track_mm=124)',
      'eye = Distance("J1")',
      'arm = Servo("J8")'
    );
    const { kit, lost } = fitted(text, barrow);
    expect(lost.map((l) => l.line)).toEqual([3, 4, 2, 2]);
    expect(lost[0].message).toBe('A distance sensor does not fit socket J1. It goes into J7, J8, J9, J10.');
    expect(lost[3].message).toMatch(/20 to 200 mm; 900 was not taken/);
    expect(kit).toEqual({ ...barrow });
  });
  it('are printed again as the text had them', () => {
    const text = `${top(
      'wheels = Wheels(left="J3", right="J1", diameter_mm=80, track_mm=130)',
      'distance = Distance("J10")'
    )}

def main():
    wheels.drive(cm=20, power=45, ending="brake")
    log(distance.cm())


run(main)
`;
    const read = readPython(text);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(printPython(read.program, fitted(text, barrow).kit).text).toBe(text);
  });
  it('say which device the text is for', () => {
    expect(deviceOf(top('wheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)')).device).toBe('barrow');
    // every kit is known again by the line of its own wheels
    for (const kit of Object.values(kits))
      if (kit.wheels.length) expect(deviceOf(top(`wheels = ${THINGS.wheels(kit)}`)).device).toBe(kit.device);
    expect(deviceOf(top('left_edge = Edge("left")')).device).toBe('trowel');
    expect(deviceOf(top('display = Display()')).device).toBe('barrow');
    for (const kit of Object.values(kits)) {
      const p = program(
        start(kit.wheels.length ? b('drive.measure') : b('wait.until', { condition: b('sense.edge') }), wait(1))
      );
      expect(deviceOf(printPython(p, kit).text)).toBe(kit);
    }
  });
  it('are looked over, the motors of the wheels too', () => {
    const remarks = lookOverText(
      top('wheels = Wheels(left="J3", right="J4", diameter_mm=68, track_mm=124)', 'distance = Distance("J10")'),
      barrow
    );
    expect(remarks.map((r) => [r.rule, r.blocks])).toEqual([
      ['socket-empty', ['line 3']],
      ['socket-wrong-part', ['line 3']],
      ['socket-empty', ['line 4']]
    ]);
    expect(lookOverText(top('turner = Spin("J5")'), barrow)[0].rule).toBe('socket-wrong-part');
  });
});
