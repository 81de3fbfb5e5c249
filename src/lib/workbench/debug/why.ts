/** Stops in words. */
import type { Seen, Stop, Test, Why } from '../../../../core/run/stops.ts';
import { say, word } from '../../../../core/words.ts';

export const seenText = (of: Seen, titles: ReadonlyMap<string, string>): string =>
  'variable' in of ? of.variable : word(titles.get(of.channel) ?? of.channel);
const testText = (t: Test, titles: ReadonlyMap<string, string>): string =>
  `${seenText(t.of, titles)} ${t.is} ${t.than}`;

export function stopText(
  stop: Stop,
  named: (id: string) => string,
  titles: ReadonlyMap<string, string> = new Map()
): string {
  switch (stop.on) {
    case 'block': {
      const block = say('before: {block}', { block: named(stop.block) });
      const when = stop.test ? `, ${say('if {test}', { test: testText(stop.test, titles) })}` : '';
      return `${block}${when}${(stop.times ?? 1) > 1 ? `, ${say('from time {n} on', { n: stop.times! })}` : ''}`;
    }
    case 'change':
      return say('when {what} changes', { what: seenText(stop.of, titles) });
    case 'limit':
      return say('when {test}', { test: testText(stop.test, titles) });
    case 'contact':
      return say('when it touches something');
  }
}
/** Why the run stands still. */
export function whyText(
  why: Why | undefined,
  named: (id: string) => string,
  titles?: ReadonlyMap<string, string>
): string {
  if (!why || 'step' in why) return '';
  if ('here' in why) return say('It has come to the block that you chose.');
  return say('Stopped {why}', { why: stopText(why.stop, named, titles) });
}
