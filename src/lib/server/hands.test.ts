import { describe, expect, it } from 'vitest';
import { hasRoom, listen, openRoom, tell } from './hands.ts';

describe('rooms for hands', () => {
  it('bring what a phone tells to the workbench that listens, and to no other', () => {
    const [a, b] = [openRoom(), openRoom()];
    const heard: string[] = [];
    const off = listen(a, (m) => heard.push(`a ${m}`))!;
    listen(b, (m) => heard.push(`b ${m}`));
    expect(tell(a, 'lean')).toBe(true);
    off();
    expect(tell(a, 'again')).toBe(false);
    expect(heard).toEqual(['a lean']);
  });
  it('have codes of four letters, none twice', () => {
    const codes = Array.from({ length: 100 }, () => openRoom());
    expect(new Set(codes).size).toBe(100);
    for (const code of codes) expect(code).toMatch(/^[B-Z]{4}$/);
  });
  it('are unknown under another code, and forgotten when nobody came for a quarter of an hour', () => {
    const code = openRoom(Date.now() - 16 * 60_000);
    expect(tell('AAAA', 'x')).toBe(false);
    expect(listen('AAAA', () => {})).toBeUndefined();
    openRoom();
    expect(hasRoom(code)).toBe(false);
  });
});
