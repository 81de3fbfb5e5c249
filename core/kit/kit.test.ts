import { describe, expect, it } from 'vitest';
import { currentOf, rightOhm } from '../circuit/led.ts';
import {
  abilities,
  aPart,
  barrow,
  changePart,
  checkWiring,
  kitSchema,
  movePart,
  partAt,
  partName,
  socketsFor,
  trowel,
  typeName,
  wheelMotor,
  type Kit
} from './kit.ts';

describe('a kit sheet', () => {
  it('of Barrow has every part where it belongs', () => {
    expect(kitSchema.parse(barrow)).toEqual(barrow);
    expect(checkWiring(barrow)).toEqual([]);
    expect([...abilities(barrow)].sort()).toEqual([
      'distance',
      'gyro',
      'lamps',
      'line',
      'motion',
      'motor',
      'nose',
      'servo',
      'wheels'
    ]);
    expect(wheelMotor(barrow, 'left')!.socket).toBe('P');
  });
  it('of Trowel is a board for the hand: what it can do is on the board, and it has two sockets', () => {
    expect(kitSchema.parse(trowel)).toEqual(trowel);
    expect(checkWiring(trowel)).toEqual([]);
    expect([...abilities(trowel)].sort()).toEqual([
      'edges',
      'lamp',
      'lamps',
      'light',
      'moisture',
      'motion',
      'servo',
      'temperature'
    ]);
    const wrong = { ...trowel, parts: [...trowel.parts, { socket: 'P', type: 'motor' as const, name: 'wheel' }] };
    expect(checkWiring(wrong)[0].text).toBe('Trowel has no socket P.');
  });
  it('says that a servo with its plug the wrong way round is dead', () => {
    const turned = {
      ...barrow,
      parts: barrow.parts.map((p) => (p.socket === 'U' ? { ...p, plug: 'wrong' as const } : p))
    };
    expect(checkWiring(turned)[0]).toMatchObject({ socket: 'U' });
    expect(checkWiring(turned)[0].text).toContain('wrong way round');
  });
  it('says what is wrong with the wiring', () => {
    const twice = { ...barrow, parts: [...barrow.parts, { socket: 'U', type: 'servo' as const, name: 'flap' }] };
    expect(checkWiring(twice)[0]).toEqual({ socket: 'U', text: 'Two parts are in socket U. Move one of them.' });
    expect(checkWiring(movePart(barrow, 'U', '40'))[0].text).toContain('does not fit socket 40. It goes into U, V, W.');
    expect(checkWiring({ ...barrow, parts: barrow.parts.filter((p) => p.socket !== 'P') })[0].text).toBe(
      'The left wheel needs exactly one motor.'
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
    expect(bare[0].socket).toBe('L');
    const [, mA, ohm] =
      /^(\d+) mA would flow through the LED in L; it and the pin take 20 mA\. Put (\d+) Ω before it\.$/.exec(
        bare[0].text
      )!;
    expect(Number(mA)).toBe(Math.round(1000 * currentOf(lamp({ colour: 'red', ohm: 0 }).parts[1])!));
    expect(Number(ohm)).toBe(rightOhm('red'));
    expect(checkWiring(lamp({ colour: 'red', ohm: Number(ohm) }))).toEqual([]);
  });
  it('changes one part and leaves the others', () => {
    const changed = changePart(barrow, 'V', { name: 'rake' });
    expect(changed.parts.map((p) => p.name)).toEqual(barrow.parts.map((p) => (p.socket === 'V' ? 'rake' : p.name)));
    expect(partAt(changed, 'V')).toEqual({ ...partAt(barrow, 'V'), name: 'rake' });
    expect(changePart(barrow, '9', { name: 'rake' })).toEqual(barrow);
  });
  it('offers wheels only where both are driven, by motors, on a robot', () => {
    const has = (kit: Kit) => abilities(kit).has('wheels');
    const without = (socket: string) => ({ ...barrow, parts: barrow.parts.filter((p) => p.socket !== socket) });
    expect([has(barrow), has(without('P')), has(without('Q'))]).toEqual([true, false, false]);
    const motors = barrow.parts.filter((p) => p.type === 'motor');
    expect(has({ ...trowel, parts: motors })).toBe(false);
    const servo = changePart(barrow, 'P', { type: 'servo' });
    expect([has(servo), wheelMotor(servo, 'left')]).toEqual([false, undefined]);
    expect([abilities(barrow).has('lamp'), abilities(trowel).has('lamps')]).toEqual([false, true]);
  });
  it('takes an angle servo and a spin servo in the same sockets, and says each by its name', () => {
    const spin = changePart(barrow, 'U', { type: 'spin' });
    expect(checkWiring(spin)).toEqual([]);
    expect(socketsFor('spin')).toEqual(socketsFor('servo'));
    expect([typeName('spin'), aPart('spin')]).toEqual(['spin servo', 'a spin servo']);
    // parts of other kinds may share a name
    expect(partName(changePart(barrow, 'U', { name: 'nose' }), 'U')).toBe('nose');
    expect(checkWiring(changePart(barrow, '20', { plug: 'wrong' }))).toEqual([]);
  });
  it('lets two parts change places', () => {
    const swapped = movePart(barrow, 'U', 'V');
    expect([partAt(swapped, 'U')!.name, partAt(swapped, 'V')!.name]).toEqual(['pan', 'striker']);
    expect(movePart(swapped, 'V', 'U')).toEqual(barrow);
  });
  it('names the socket where two parts share a name, and where nothing is', () => {
    const same = { ...barrow, parts: barrow.parts.map((p) => (p.socket === 'V' ? { ...p, name: 'striker' } : p)) };
    expect([partName(same, 'U'), partName(barrow, 'U'), partName(barrow, 'W')]).toEqual([
      'striker (U)',
      'striker',
      'W (empty)'
    ]);
  });
});
