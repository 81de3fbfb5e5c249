import { describe, expect, it } from 'vitest';
import { barrow } from '../../../kit/kit.ts';
import { cases } from '../../../testing/cases.ts';
import { b, log, program, start } from '../../../testing/build.ts';
import { lookOver } from '../lookover.ts';

const ring = (name: string) => [b('begin.message', { name }), log('ring')];
cases('message-unheard', {
  fires: {
    'nobody waits for it': program(start(b('message.send', { name: 'go' }))),
    'another name is waited for': program(start(b('message.send', { name: 'go' })), ring('Go'))
  },
  silent: {
    'a stack waits for it': program(start(b('message.send', { name: 'go' })), ring('go')),
    'for devices nearby': program(start(b('message.send', { name: 'go', whom: 'my stacks and devices nearby' })))
  }
});
describe('message-unheard', () => {
  it('knows the other devices: one meant for them that goes to the own stacks', () => {
    const p = program(start(b('message.send', { name: 'go' })));
    const looked = { program: p, kit: barrow, others: [{ program: program(ring('go')) }] };
    const [remark] = lookOver(looked);
    expect(remark.says).toContain('it is the other device that waits for it');
    expect(lookOver({ ...looked, ...remark.mends[0].apply(p, barrow) })).toEqual([]);
  });
});
