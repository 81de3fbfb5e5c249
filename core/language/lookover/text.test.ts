import { expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { b, program, start } from '../../testing/build.ts';
import { printPython } from '../python/print.ts';
import { lookOverText } from './text.ts';

const text = (line: string): string =>
  `from mossbell import *\n\n${line}\n\n\ndef main():\n    wait(1)\n\n\nrun(main)\n`;
const renamed = { ...barrow, parts: barrow.parts.map((p) => (p.socket === 'J4' ? { ...p, name: 'knocker' } : p)) };

it('knows the parts that a printed text names', () => {
  const p = program(start(b('servo.angle'), b('motor.run', { motor: 'J1' }), b('motor.run', { motor: 'J2' })));
  expect(lookOverText(printPython(p, barrow).text, barrow)).toEqual([]);
  expect(lookOverText(printPython(p, renamed).text, renamed)).toEqual([]);
});
it('sees a part that was renamed on the kit sheet, and calls it the same in one click', () => {
  const t = `${text('striker = Servo("J4")')}striker.angle(90)\n`;
  const [remark] = lookOverText(t, renamed);
  expect(remark).toMatchObject({ rule: 'part-renamed', severity: 'consider', blocks: ['line 3'] });
  expect(remark.says).toBe('The text calls the part in J4 striker; the kit sheet calls it knocker.');
  const mended = remark.mends[0].text!(t);
  expect(mended).toContain('knocker.angle(90)');
  expect(lookOverText(mended, renamed)).toEqual([]);
});
it('sees a socket that is empty or holds another part', () => {
  const [empty] = lookOverText(text('vent = Servo("J6")'), barrow);
  expect(empty).toMatchObject({ rule: 'socket-empty', severity: 'will not work' });
  expect(lookOverText(empty.mends[0].text!(text('vent = Servo("J6")')), barrow).map((r) => r.rule)).toEqual([
    'part-renamed'
  ]);
  expect(lookOverText(text('left = Motor("J4")'), barrow)[0].rule).toBe('socket-wrong-part');
  expect(lookOverText(text('x = Something("U")'), barrow)).toEqual([]);
});
