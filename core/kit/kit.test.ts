import { describe, expect, it } from 'vitest';
import { abilities, barrow, checkWiring, kitSchema, movePart, partAt, partName, trowel, wheelMotor } from './kit.ts';

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
