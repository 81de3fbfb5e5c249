import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../../../core/language/catalogue.ts';
import { SECTIONS } from '../../../../core/language/define.ts';
import { search } from './search.ts';

const german = JSON.parse(readFileSync(new URL('../../../../messages/de.json', import.meta.url), 'utf8')) as {
  blocks: Record<string, string>;
  interface: Record<string, string>;
};
const cards = (word: (text: string) => string) =>
  [...catalogue.values()].map((d) => ({
    kind: d.kind,
    title: word(d.label[0]),
    line: word(d.label[1]),
    also: word(d.also ?? ''),
    rest: `${word(d.help)} ${word(SECTIONS[d.section].title)} ${word(d.words)}`
  }));
const english = cards((t) => t);
const translated = cards((t) => german.blocks[t] ?? german.interface[t] ?? t);
const first = (all: typeof english, question: string) => search(all, question)[0]?.kind;

describe('the search for a block', () => {
  it('finds by what people say, the right block first', () => {
    for (const [question, kind] of [
      ['forward', 'drive.measure'],
      ['backwards', 'drive.measure'],
      ['arc', 'curve.angle'],
      ['rotate', 'turn.angle'],
      ['random', 'calc.chance'],
      ['else', 'choose.if'],
      ['forever', 'repeat.ever'],
      ['repeat', 'repeat.times'],
      ['LED', 'lamp.set'],
      ['beep', 'sound.beep'],
      ['sleep', 'wait.time'],
      ['wait', 'wait.time'],
      ['if', 'choose.if'],
      ['pi', 'calc.pi'],
      ['tilt', 'sense.lean']
    ])
      expect(first(english, question), question).toBe(kind);
  });
  it('does so in German too', () => {
    for (const [question, kind] of [
      ['vorwärts', 'drive.measure'],
      ['rückwärts', 'drive.measure'],
      ['Bogen', 'curve.angle'],
      ['drehen', 'turn.angle'],
      ['Zufall', 'calc.chance'],
      ['sonst', 'choose.if'],
      ['endlos', 'repeat.ever'],
      ['wiederhole', 'repeat.times'],
      ['LED', 'lamp.set'],
      ['piep', 'sound.beep'],
      ['schlafen', 'wait.time']
    ])
      expect(first(translated, question), question).toBe(kind);
  });
  it('needs every word, wherever it stands, and finds nothing for nonsense', () => {
    expect(search(english, 'servo slowly').map((c) => c.kind)).toEqual(['servo.slow']);
    expect(search(english, 'display pixels').map((c) => c.kind)).toContain('display.dark');
    expect(search(english, 'xyzzy')).toEqual([]);
    // the help counts, but last
    const found = search(english, 'brake').map((c) => c.kind);
    expect(found.indexOf('wheels.stop')).toBeLessThan(found.indexOf('drive.measure'));
  });
});
