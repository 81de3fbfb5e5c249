/** What was asked and what came of it: of real runs, so that nothing to find is said only where all came as asked. */
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { b, program, run, start, wait } from '../../testing/build.ts';
import { fromText } from '../../testing/text.ts';
import { whatCame } from './came.ts';
import { findings } from './findings.ts';

const off = (text: string) => {
  const p = fromText(text);
  return whatCame(run(p, { limitS: 20 }), barrow, p).filter((c) => !c.asAsked);
};
describe('what was asked, and what came of it', () => {
  it('is as asked for a move that ends in brake, a servo that has its time, a tone and a picture that last', () => {
    const p = fromText(`wheels.drive(cm=20, power=30, ending="brake")
striker.angle(120)
wait(1)
tone(440, 0.2)
display.write(5)
wait(0.5)`);
    const came = whatCame(run(p), barrow, p);
    expect(came.map((c) => [c.what, c.asked, c.asAsked])).toEqual([
      ['drive ahead', '20.00 cm', true],
      ['striker', '120.00 °', true]
    ]);
  });
  it('tells a coasting move, a servo without its time and a tone that another cuts off', () => {
    expect(off('wheels.drive(cm=20, power=90, ending="coast")').map((c) => c.what)).toEqual(['drive ahead']);
    expect(
      off(`striker.angle(0)
wait(1)
striker.angle(180)
wait(0.25)
striker.angle(0)
wait(1)`)
    ).not.toEqual([]);
    const p = program(
      start(b('sound.start', { pitch: 440 }), wait(0.1)),
      start(wait(0.05), b('sound.tone', { pitch: 600, time: 1 })),
      start(wait(0.2), b('sound.tone', { pitch: 300, time: 0.1 }))
    );
    expect(whatCame(run(p), barrow, p).map((c) => [c.what, c.asked, c.got, c.asAsked])).toEqual([
      ['a tone of 600 Hz', '1.00 s', '0.15 s', false]
    ]);
  });
  it('tells a message that no stack takes, and none that one does', () => {
    const sends = program(start(b('message.send', { name: 'go' }), wait(0.1)));
    expect(whatCame(run(sends), barrow, sends).map((c) => [c.what, c.got])).toEqual([
      ['the message "go"', 'not heard']
    ]);
    const heard = program(start(b('message.send', { name: 'go' }), wait(0.1)), [
      b('begin.message', { name: 'go' }),
      wait(0.1)
    ]);
    expect(whatCame(run(heard), barrow, heard)).toEqual([]);
  });
  it('says nothing of a picture that is built by several blocks at once: it did what it was asked', () => {
    const p = fromText('display.pixel(1, 1, "on")\ndisplay.pixel(2, 1, "on")\ndisplay.pixel(3, 1, "on")\nwait(1)');
    const trace = run(p);
    expect(whatCame(trace, barrow, p)).toEqual([]);
    expect(findings(trace, barrow, p)).toEqual([]);
  });
});
