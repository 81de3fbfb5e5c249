import { describe, expect, it } from 'vitest';
import { aPart, PART_TYPES, sits, typeName } from './parts/parts.ts';
import { currentOf, rightOhm } from '../circuit/led.ts';
import { newStep } from '../language/catalogue.ts';
import {
  abilities,
  barrow,
  changePart,
  kitSchema,
  movePart,
  partAt,
  partName,
  diameterMm,
  firstSocket,
  reach,
  resized,
  trackMm,
  wheelOf,
  kits,
  wheelsAt,
  plugged,
  socketsFor,
  socketsOf,
  trowel,
  motorsAt,
  type Kit
} from './kit.ts';
import { rehearse } from '../run/interpreter.ts';
import { longAisle } from '../yard/mats.ts';
import { lookOver } from '../language/lookover/lookover.ts';
import { emptyProgram } from '../language/program.ts';
import { checkWiring } from './wiring.ts';

describe('a kit sheet', () => {
  it('of Barrow has every part where it belongs', () => {
    expect(kitSchema.parse(barrow)).toEqual(barrow);
    expect(checkWiring(barrow)).toEqual([]);
    expect([...abilities(barrow)].sort()).toEqual([
      'display',
      'distance',
      'drive',
      'gyro',
      'lamps',
      'letters',
      'levels',
      'line',
      'motion',
      'motor',
      'nose',
      'servo',
      'wheels'
    ]);
    expect(motorsAt(barrow, 'left')[0].socket).toBe('J1');
  });
  it('of Trowel is a board for the hand: what it can do is on the board, and it has two sockets', () => {
    expect(kitSchema.parse(trowel)).toEqual(trowel);
    expect(checkWiring(trowel)).toEqual([]);
    expect([...abilities(trowel)].sort()).toEqual([
      'display',
      'edges',
      'lamp',
      'lamps',
      'letters',
      'levels',
      'light',
      'moisture',
      'motion',
      'servo',
      'temperature'
    ]);
    const wrong = (socket: string) => ({
      ...trowel,
      parts: [{ socket, type: 'motor' as const, name: 'wheel' }]
    });
    expect(checkWiring(wrong('J3'))[0].text).toBe('Trowel has no socket J3.');
    expect(checkWiring(wrong('J2'))[0].text).toBe('Trowel has no socket for a motor.');
    expect([socketsOf(trowel), socketsOf(barrow).length]).toEqual([['J1', 'J2'], 10]);
  });
  it('says that a servo with its plug the wrong way round is dead', () => {
    const turned = {
      ...barrow,
      parts: barrow.parts.map((p) => (p.socket === 'J4' ? { ...p, plug: 'wrong' as const } : p))
    };
    expect(checkWiring(turned)[0]).toMatchObject({ socket: 'J4' });
    expect(checkWiring(turned)[0].text).toContain('wrong way round');
  });
  it('says what is wrong with the wiring', () => {
    const twice = { ...barrow, parts: [...barrow.parts, { socket: 'J4', type: 'servo' as const, name: 'flap' }] };
    expect(checkWiring(twice)[0]).toEqual({ socket: 'J4', text: 'Two parts are in socket J4. Move one of them.' });
    expect(checkWiring(movePart(barrow, 'J4', 'J10'))[0].text).toContain(
      'does not fit socket J10. It goes into J4, J5, J6.'
    );
    expect(checkWiring({ ...barrow, parts: barrow.parts.filter((p) => p.socket !== 'J1') })[0].text).toBe(
      'The left wheel needs exactly one motor.'
    );
  });
  it('says of a kit that cannot be what is wrong with it, and refuses what no bench can be built from', () => {
    const { chassis, wheels, battery, motor } = barrow;
    const [left, right] = wheels;
    const at = (xMm: number, yMm: number) => ({ xMm, yMm });
    const cannot = (change: Partial<Kit>): [string, boolean] => {
      const kit = { ...barrow, ...change };
      const told = checkWiring(kit).map((w) => w.text);
      expect(told.length).toBeGreaterThan(0);
      return [told.at(-1)!, kitSchema.safeParse(kit).success];
    };
    const body = (change: Partial<Kit['chassis']>) => cannot({ chassis: { ...chassis, ...change } });
    expect(body({ outline: [at(-50, -50), at(50, 50), at(-50, 50), at(90, -50)] })).toEqual([
      expect.stringContaining('crosses itself'),
      false
    ]);
    expect(body({ outline: [at(0, 0), at(50, 50), at(100, 100)] })).toEqual([
      expect.stringContaining('no area'),
      false
    ]);
    expect(body({ fromMm: 200, toMm: 90 })).toEqual([expect.stringContaining('begins at 200 mm'), false]);
    expect(body({ massAt: at(500, 0) })).toEqual([expect.stringContaining('it tips over'), true]);
    expect(cannot({ wheels: [left, { ...right, id: left.id }] })).toEqual([expect.stringContaining('the id'), false]);
    expect(cannot({ wheels: [left, { ...right, at: left.at }] })[0]).toMatch(/stand on one spot|tips over/);
    expect(cannot({ battery: { ...battery, emptyV: 9, fullV: 6 } })).toEqual([expect.stringContaining('9 V'), true]);
    expect(cannot({ motor: { ...motor, frictionNm: motor.stallNm } })).toEqual([
      expect.stringContaining('never turn'),
      true
    ]);
    expect(cannot({ wheels: wheels.map((w) => ({ ...w, rim: 'rollers' as const })) })).toEqual([
      expect.stringContaining('sliding sideways'),
      true
    ]);
    // a refused file says where
    const refused = kitSchema.safeParse({ ...barrow, chassis: { ...chassis, fromMm: 200, toMm: 90 } });
    expect(refused.error?.issues[0].path).toEqual(['chassis', 'fromMm']);
    for (const kit of Object.values(kits)) expect(checkWiring(kit)).toEqual([]);
    // it can be run: the first of two in a socket is there, with one channel
    const run = rehearse({
      program: emptyProgram(),
      kit: { ...barrow, parts: [...barrow.parts, barrow.parts[0], barrow.parts[3]] },
      mat: longAisle,
      seed: 1
    });
    expect(new Set(run.channels.map((c) => c.key)).size).toBe(run.channels.length);
    // the look-over tells it where the program is looked at
    const two = { ...barrow, parts: [...barrow.parts, { socket: 'J4', type: 'servo' as const, name: 'flap' }] };
    expect(lookOver({ program: emptyProgram(), kit: two }).map((r) => r.says)).toContain(
      'Two parts are in socket J4. Move one of them.'
    );
  });
  it('reckons what flows through a bare LED, and names the resistor that it wants', () => {
    const lamp = (change: object) => ({
      ...trowel,
      parts: trowel.parts.map((p) => (p.type === 'lamp' ? { ...p, ...change } : p))
    });
    // a lamp of the kit has its resistor built in
    expect(checkWiring(trowel)).toEqual([]);
    const bare = checkWiring(lamp({ colour: 'red', ohm: 0 }));
    expect(bare).toHaveLength(1);
    expect(bare[0].socket).toBe('J2');
    const [, mA, ohm] =
      /^(\d+) mA would flow through the LED in J2; it and the pin take 20 mA\. Put (\d+) Ω before it\.$/.exec(
        bare[0].text
      )!;
    expect(Number(mA)).toBe(Math.round(1000 * currentOf(lamp({ colour: 'red', ohm: 0 }).parts[1])!));
    expect(Number(ohm)).toBe(rightOhm('red'));
    expect(checkWiring(lamp({ colour: 'red', ohm: Number(ohm) }))).toEqual([]);
  });
  it('changes one part and leaves the others', () => {
    const changed = changePart(barrow, 'J5', { name: 'rake' });
    expect(changed.parts.map((p) => p.name)).toEqual(barrow.parts.map((p) => (p.socket === 'J5' ? 'rake' : p.name)));
    expect(partAt(changed, 'J5')).toEqual({ ...partAt(barrow, 'J5'), name: 'rake' });
    expect(changePart(barrow, '9', { name: 'rake' })).toEqual(barrow);
  });
  it('offers wheels only where both are driven, by motors, on a robot', () => {
    const has = (kit: Kit) => abilities(kit).has('wheels');
    const without = (socket: string) => ({ ...barrow, parts: barrow.parts.filter((p) => p.socket !== socket) });
    expect([has(barrow), has(without('J1')), has(without('J2'))]).toEqual([true, false, false]);
    const motors = barrow.parts.filter((p) => p.type === 'motor');
    expect(has({ ...trowel, parts: motors })).toBe(false);
    const servo = changePart(barrow, 'J1', { type: 'servo' });
    expect([has(servo), motorsAt(servo, 'left')[0]]).toEqual([false, undefined]);
    expect([abilities(barrow).has('lamp'), abilities(trowel).has('lamps')]).toEqual([false, true]);
  });
  it('takes an angle servo and a spin servo in the same sockets, and says each by its name', () => {
    const spin = changePart(barrow, 'J4', { type: 'spin' });
    expect(checkWiring(spin)).toEqual([]);
    expect(socketsFor(barrow, 'spin')).toEqual(socketsFor(barrow, 'servo'));
    expect([typeName('spin'), aPart('spin')]).toEqual(['spin servo', 'a spin servo']);
    // parts of other kinds may share a name
    expect(partName(changePart(barrow, 'J4', { name: 'nose' }), 'J4')).toBe('nose');
    expect(checkWiring(changePart(barrow, 'J8', { plug: 'wrong' }))).toEqual([]);
  });
  it('says where a block looks for a part first: at the first there is, or where one would go', () => {
    expect([firstSocket(barrow, 'servo'), firstSocket(trowel, 'servo')]).toEqual(['J4', 'J1']);
    expect(firstSocket(movePart(barrow, 'J4', 'J6'), 'servo')).toBe('J6');
    expect([firstSocket(barrow, 'spin'), firstSocket(barrow, 'colour')]).toEqual(['J6', 'J10']);
    expect(firstSocket(trowel, 'motor')).toBeUndefined();
    expect(newStep('servo.angle', 'a', undefined, trowel).slots.servo).toBe('J1');
    expect(newStep('motor.run', 'a', undefined, trowel).slots.motor).toBe('J1');
  });
  it('plugs a part in as its kind is: the wheel that has no motor, the side that has no line sensor', () => {
    const without = (...sockets: string[]) => ({
      ...barrow,
      parts: barrow.parts.filter((p) => !sockets.includes(p.socket))
    });
    expect(plugged(without('J2'), 'J3', 'motor')).toEqual({
      socket: 'J3',
      type: 'motor',
      name: 'right wheel',
      drives: 'right',
      mounted: 'normal'
    });
    expect(plugged(without('J1', 'J2'), 'J1', 'motor')).toMatchObject({ name: 'left wheel', drives: 'left' });
    expect(plugged(barrow, 'J3', 'motor')).toEqual({ socket: 'J3', type: 'motor', name: 'motor', mounted: 'normal' });
    expect(plugged(without('J8', 'J9'), 'J8', 'line')).toEqual(partAt(barrow, 'J8'));
    expect(plugged(without('J9'), 'J9', 'line')).toEqual(partAt(barrow, 'J9'));
    expect(plugged(without('J7'), 'J7', 'distance')).toEqual(partAt(barrow, 'J7'));
    expect(plugged(barrow, 'J6', 'spin')).toEqual({
      socket: 'J6',
      type: 'spin',
      name: 'servo',
      hornDeg: 0,
      at: { xMm: -20, yMm: 2, deg: 0 }
    });
    expect(plugged(trowel, 'J1', 'servo')).toEqual({ socket: 'J1', type: 'servo', name: 'servo', hornDeg: 0 });
    for (const kit of [barrow, trowel])
      for (const type of PART_TYPES)
        for (const socket of socketsFor(kit, type))
          if (!partAt(kit, socket))
            expect(kitSchema.safeParse({ ...kit, parts: [...kit.parts, plugged(kit, socket, type)] }).success).toBe(
              true
            );
  });
  it('tells in one line how a part sits there', () => {
    expect(barrow.parts.map((p) => sits(p, barrow))).toEqual([
      'mirrored',
      'normal',
      'horn fitted at +20°',
      'horn at 0°',
      '4 to 180 cm, 22° cone',
      'line, 18 mm apart',
      'line, 18 mm apart'
    ]);
    expect(sits({ socket: 'J3', type: 'motor', name: 'hoist' }, barrow)).toBe('normal, no wheel');
    expect(sits({ socket: 'J4', type: 'servo', name: 'arm', hornDeg: -5 }, barrow)).toBe('horn fitted at -5°');
    expect(trowel.parts.map((p) => sits(p, trowel))[1]).toBe('a lamp with its own resistor');
    expect(sits({ socket: 'J2', type: 'lamp', name: 'lamp', ohm: 220 }, trowel)).toBe('220 Ω before it');
  });
  it('tells of its wheels by their side, how far apart they stand, and which motor turns each', () => {
    expect((['left', 'right'] as const).map((side) => wheelsAt(barrow, side).map((w) => w.id))).toEqual([
      ['left'],
      ['right']
    ]);
    expect([trackMm(barrow), trackMm(trowel), diameterMm(barrow, 'left')]).toEqual([124, 0, 68]);
    expect(wheelOf(barrow, partAt(barrow, 'J2'))!.id).toBe('right');
    expect([wheelOf(barrow, partAt(barrow, 'J4')), wheelOf(barrow, undefined)]).toEqual([undefined, undefined]);
    const other = resized(barrow, { left: 60, trackMm: 130 });
    expect(other.wheels.map((w) => [w.diameterMm, w.at.yMm])).toEqual([
      [60, 65],
      [68, -65]
    ]);
    // one that rolls aside belongs to no side
    const crab = { ...barrow, wheels: barrow.wheels.map((w) => ({ ...w, at: { ...w.at, deg: 90 } })) };
    expect([wheelsAt(crab, 'left'), trackMm(crab)]).toEqual([[], 0]);
    expect(reach(barrow)).toEqual({ rear: -85, front: 65, right: -52, left: 52 });
  });
  it('lets two parts change places', () => {
    const swapped = movePart(barrow, 'J4', 'J5');
    expect([partAt(swapped, 'J4')!.name, partAt(swapped, 'J5')!.name]).toEqual(['pan', 'striker']);
    expect(movePart(swapped, 'J5', 'J4')).toEqual(barrow);
  });
  it('names the socket where two parts share a name, and where nothing is', () => {
    const same = { ...barrow, parts: barrow.parts.map((p) => (p.socket === 'J5' ? { ...p, name: 'striker' } : p)) };
    expect([partName(same, 'J4'), partName(barrow, 'J4'), partName(barrow, 'J6')]).toEqual([
      'striker (J4)',
      'striker',
      'J6 (empty)'
    ]);
  });
});
