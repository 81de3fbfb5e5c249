import { IntlMessageFormat } from 'intl-messageformat';
import { readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import '../core/run/exact-math.ts';
import { barrow } from '../core/kit/kit.ts';
import { catalogue, newStep, saidWords, sentence, slotsOf } from '../core/language/catalogue.ts';
import { pieces } from '../core/language/define.ts';
import { lookOver } from '../core/language/lookover/lookover.ts';
import { printPython } from '../core/language/python/print.ts';
import { TOLD } from '../core/run/told.ts';
import { b, cmp, program, run, start, wait } from '../core/testing/build.ts';
import { findings } from '../core/trace/findings/findings.ts';
import { ENGLISH, retell, say, speakFrom, word } from '../core/words.ts';
import { tongueOf, type MessageFile } from '../src/lib/messages.ts';
import de from './de.json';
import { asText, extract } from './extract.ts';

const en: MessageFile = extract();
const german = tongueOf('de', de);
afterEach(() => speakFrom(() => ENGLISH));
const places = (text: string): string[] =>
  [...new Set([...text.matchAll(/\{>?(\w+)[,}]/g)].map((m) => m[1]))].filter((n) => !/^(once|einmal)$/.test(n)).sort();

describe('message files', () => {
  it('have every word of the code, as it stands', () => {
    expect(readFileSync(new URL('./en.json', import.meta.url), 'utf8')).toBe(asText(en));
  });
  for (const part of ['interface', 'blocks'] as const)
    it(`German has all of the ${part}, and nothing that is not there any more`, () => {
      const own = Object.keys(de[part]);
      expect(Object.keys(en[part]).filter((k) => !own.includes(k))).toEqual([]);
      const known = new Set(Object.keys(en[part]));
      expect(own.filter((k) => !known.has(k) && !known.has(k.replace(/ @.*$/, '')))).toEqual([]);
      expect(own.filter((k) => !(de[part] as Record<string, string>)[k].trim() && k.trim())).toEqual([]);
    });
  it('have the same placeholders in every language, wherever they stand', () => {
    for (const part of ['interface', 'blocks'] as const)
      for (const [english, text] of Object.entries(de[part])) expect(places(text), english).toEqual(places(english));
  });
  it('are ICU MessageFormat, plurals included', () => {
    for (const [english, text] of Object.entries(de.interface))
      if (english.includes('{'))
        for (const one of [english, text])
          expect(() => new IntlMessageFormat(one, 'de', undefined, { ignoreTag: true }), one).not.toThrow();
    speakFrom(() => german);
    const n = (count: number) => say('They differ in {n, plural, one {# place} other {# places}}.', { n: count });
    expect([n(1), n(3)]).toEqual(['Sie unterscheiden sich an 1 Stelle.', 'Sie unterscheiden sich an 3 Stellen.']);
  });
  it('hold every slot and body of every block, each once', () => {
    speakFrom(() => german);
    for (const def of catalogue.values()) {
      const holes = (list: ReturnType<typeof pieces>) =>
        list.flatMap((p) => ('text' in p ? [] : 'slot' in p ? [p.slot] : [`>${p.body}`])).sort();
      const step = newStep(def.kind, 'x');
      expect(holes(saidWords(step)), def.kind).toEqual(holes(pieces(def.grows ? def.grows.words(step) : def.words)));
    }
  });
});

describe('another language', () => {
  const turn = b('turn.angle', { angle: 90, side: 'left' });
  it('puts the slots of a block where it wants them', () => {
    expect(sentence(turn, program(start()))).toBe('turn left by 90 ° at 35 %, ending in brake');
    speakFrom(() => german);
    expect(sentence(turn, program(start()))).toBe('drehe um 90 ° nach links mit 35 %, am Ende Bremsen');
    expect(slotsOf(turn)).toEqual(['side', 'angle', 'power', 'ending']);
  });
  it('leaves a name that a person gave as it is', () => {
    speakFrom(() => german);
    const p = { ...program(start()), routines: [{ id: 'r', name: 'if', x: 0, y: 0, steps: [], inputs: [] }] };
    expect(sentence(b('routine.do', { routine: 'r' }), p)).toBe('mach if');
  });
  it('changes neither the Python nor the trace', () => {
    const p = program(start(turn, b('choose.if', { if1: cmp(1, '<', 2) }, { then1: [wait(1)] })));
    const before = [printPython(p, barrow).text, JSON.stringify(run(p).events)];
    speakFrom(() => german);
    expect([printPython(p, barrow).text, JSON.stringify(run(p).events)]).toEqual(before);
  });
  it('tells remarks and findings, and the error of a run, in its own words', () => {
    const p = program(start(b('wheels.run'), b('log.line', { value: b('calc.rest', { a: 1, b: 0 }) })));
    speakFrom(() => german);
    expect(lookOver({ program: p, kit: barrow })[0].says).toContain('nichts hält sie an');
    const error = findings(run(p), barrow).find((f) => f.rule === 'error')!;
    expect(error.says).toBe('Hier blieb das Programm stehen: Durch null kann man nicht teilen.');
  });
  it('knows a sentence again that was made elsewhere in English', () => {
    speakFrom(() => german);
    expect(retell('A list belongs here. (here is a text)')).toBe('Hierher gehört eine Liste. (hier ist ein Text)');
    expect(retell('run motor lift')).toBe('Motor lift laufen lassen');
    expect(retell('what nobody wrote')).toBe('what nobody wrote');
    for (const told of TOLD) expect(word(told), told).not.toBe('');
  });
});
