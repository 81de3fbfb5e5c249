import { describe, expect, it } from 'vitest';
import { answer, hasRoom, listen, nameOf, openRoom, tell } from './hands.ts';

const room = () => openRoom()!;

describe('rooms for hands', () => {
  it('bring what a phone tells to the workbench that listens, and to no other', () => {
    const [a, b] = [room(), room()];
    const heard: string[] = [];
    const off = listen(a.code, a.key, (m) => heard.push(`a ${m}`))!;
    listen(b.code, b.key, (m) => heard.push(`b ${m}`));
    expect([nameOf(openRoom('Catch the trowel')!.code), nameOf(a.code), nameOf('NOBODY')]).toEqual([
      'Catch the trowel',
      '',
      ''
    ]);
    expect(tell(a.code, 'phone', 'lean')).toBe('heard');
    off();
    expect(tell(a.code, 'phone', 'again')).toBe('nobody');
    expect(heard).toEqual(['a lean']);
  });
  it('have codes of six letters, none twice, and are listened to with their key alone', () => {
    const codes = Array.from({ length: 100 }, () => room());
    expect(new Set(codes.map((r) => r.code)).size).toBe(100);
    for (const { code } of codes) expect(code).toMatch(/^[B-Z]{6}$/);
    expect(listen(codes[0].code, codes[1].key, () => {})).toBeUndefined();
    expect(listen(codes[0].code, null, () => {})).toBeUndefined();
  });
  it('let a second phone in only when the workbench says so', () => {
    const { code, key } = room();
    const heard: string[] = [];
    listen(code, key, (m) => heard.push(m));
    expect(tell(code, 'one', 'lean 1')).toBe('heard');
    expect(tell(code, 'two', 'lean 2')).toBe('waiting');
    expect(tell(code, 'two', 'lean 3')).toBe('waiting');
    expect(heard).toEqual(['lean 1', '{"asks":"two"}']);
    expect(answer(code, 'wrong key', 'two', true)).toBe(false);
    expect(answer(code, key, 'nobody', true)).toBe(false);
    expect(answer(code, key, 'two', false)).toBe(true);
    expect(tell(code, 'two', 'lean 4')).toBe('refused');
    expect(tell(code, 'three', 'x')).toBe('waiting');
    expect(answer(code, key, 'three', true)).toBe(true);
    expect([tell(code, 'three', 'lean 5'), tell(code, 'one', 'lean 6')]).toEqual(['heard', 'refused']);
    expect(heard.at(-1)).toBe('lean 5');
  });
  it('need no asking when the first phone has left or is silent', () => {
    const { code, key } = room();
    listen(code, key, () => {});
    const now = Date.now();
    tell(code, 'one', 'lean', false, now);
    tell(code, 'one', 'bye', true, now);
    expect(tell(code, 'two', 'lean', false, now)).toBe('heard');
    expect(tell(code, 'three', 'lean', false, now + 3000)).toBe('waiting');
    expect(tell(code, 'three', 'lean', false, now + 5000)).toBe('heard');
  });
  it('are unknown under another code, forgotten when nobody came for a quarter of an hour, and never while in use', () => {
    const old = openRoom('', Date.now() - 16 * 60_000)!;
    const used = openRoom('', Date.now() - 16 * 60_000)!;
    listen(used.code, used.key, () => {});
    expect(tell('AAAAAA', 'phone', 'x')).toBe('nobody');
    openRoom();
    expect([hasRoom(old.code), hasRoom(used.code)]).toEqual([false, true]);
    // however many are opened, those in use stay, and when all are there is no more room
    for (let i = 0; i < 300; i++) openRoom();
    expect(hasRoom(used.code)).toBe(true);
    const full: string[] = [];
    for (let next = openRoom(); next && full.length < 300; next = openRoom()) {
      listen(next.code, next.key, () => {});
      full.push(next.code);
    }
    expect(full.length).toBeLessThan(200);
    expect(openRoom()).toBeUndefined();
    expect(full.every(hasRoom)).toBe(true);
  });
});
