/**
 * Words of Python that people know and that no block says, each with what to write in its place. What is written here runs as
 * text too: it is the library's own. Each line is tried by counterparts.test.ts.
 */
import { say } from '../../words.ts';

type Counterpart = readonly [RegExp, (found: RegExpExecArray) => string];
/** `write` is what stands in a text in place of it. */
const instead = (write: string): string => say('Blocks say it otherwise: write {write}.', { write });
/** What a call of a name becomes; dots stand for what it is given. */
const CALLS: Readonly<Record<string, string>> = {
  print: 'log(...)',
  sleep: 'wait(...)',
  sleep_ms: 'wait_ms(...)',
  randint: 'chance(1, 6)',
  randrange: 'chance(0, 5)',
  random: 'any_chance()',
  uniform: 'any_chance() * 10',
  choice: 'place_of(chance(0, how_many(things) - 1), things)',
  abs: 'absolute(...)',
  fabs: 'absolute(...)',
  round: 'rounded(...)',
  int: 'floor(...)',
  ceil: 'ceiling(...)',
  sqrt: 'square_root(...)',
  sin: 'sine(...)',
  cos: 'cosine(...)',
  tan: 'tangent(...)',
  asin: 'arc_sine(...)',
  acos: 'arc_cosine(...)',
  atan: 'arc_tangent(...)',
  atan2: 'arc_tangent_2(y, x)',
  pow: 'to_the_power(a, b)',
  divmod: 'floor(a / b)',
  str: 'as_text(...)',
  float: 'as_number(...)',
  min: 'smaller(a, b)',
  max: 'larger(a, b)',
  forward: 'wheels.drive(cm=20, power=45, ending="brake")',
  backward: 'wheels.back(cm=20, power=45, ending="brake")'
};
const LISTS: Readonly<Record<string, (list: string, given: string) => string>> = {
  append: (list, given) => `put_at_end(${given || '...'}, ${list})`,
  insert: (list) => `put_at(value, 0, ${list})`,
  pop: (list, given) => `take_out(${given || '0'}, ${list})`,
  index: (list, given) => `where_in(${given || '...'}, ${list})`,
  count: (list) => `how_many(${list})`
};

const COUNTERPARTS: readonly Counterpart[] = [
  [
    /^for (\w+) in range\((.+)\)\s*:/,
    ([, name, given]) => say('In a loop that counts both ends count: write {write}.', { write: counted(name, given) })
  ],
  [/^for (\w+) in (\w+)\s*:/, ([, name, list]) => instead(`for ${name} in each(${list}):`)],
  [/^len\((["'])/, () => instead('characters(...)')],
  [
    /^len\((\w+)\)/,
    ([, list]) =>
      say('Blocks say it otherwise: write how_many({list}) of a list, characters({list}) of a text.', { list })
  ],
  [/^(\w+)\[(.+)\]\s*=(?!=)/, ([, list, at]) => instead(`swap_at(${at}, ${list}, ...)`)],
  [/^del (\w+)\[(.+)\]/, ([, list, at]) => instead(`take_out(${at}, ${list})`)],
  [/^["'].*\[(.+)\]$/, ([, at]) => instead(`character(${at}, ...)`)],
  [
    /^(\w+)\[(.+)\]$/,
    ([, list, at]) =>
      say('Blocks say it otherwise: write place_of({at}, {list}) of a list, character({at}, {list}) of a text.', {
        list,
        at
      })
  ],
  [/^(\w+)\.(append|insert|pop|index|count)\((.*)\)$/, ([, list, word, given]) => instead(LISTS[word](list, given))],
  [/^(\w+)\s*(\*|\/|\/\/|%|\*\*)=\s*(.+)$/, ([, name, sign, by]) => instead(`${name} = ${worked(name, sign, by)}`)],
  [/^(.+?)\s*(\/\/|\*\*)\s*(.+)$/, ([, a, sign, b]) => instead(worked(a, sign, b))],
  [/^["'].*%/, () => instead('join(a, b)')],
  [/^(.+?)\s*%\s*(.+)$/, ([, a, b]) => instead(worked(a, '%', b))],
  [/^f["']|\.format\(/, () => instead('join(a, b)')],
  [/^(["']).*\1\s*(["'])/, () => instead('join(a, b)')],
  [/^(.+) not in (\w+)$/, ([, value, list]) => instead(`not is_in(${value}, ${list})`)],
  [/^(.+) in (\w+)$/, ([, value, list]) => instead(`is_in(${value}, ${list})`)],
  [/^(.+) is not (.+)$/, ([, a, b]) => instead(`${a} != ${b}`)],
  [/^(.+) is (.+)$/, ([, a, b]) => instead(`${a} == ${b}`)],
  [
    /^.+ if .+ else .+$/,
    () => say('A value is chosen by an "if" of its own: set the variable in one branch, and otherwise in the other.')
  ],
  [/^(?:math\.)?pi$/, () => instead('pi')],
  [/^(?:input|open)\(/, () => say('A device has no keyboard and no files: ask a button, a sensor or a message.')],
  [/^(?:import|from)\b/, () => say('Blocks need nothing but "from mossbell import *".')],
  [/^try\s*:/, () => say('Blocks try nothing: ask with "if" before, what could go wrong.')],
  [/^(?:exit|quit|sys\.exit)\(/, () => say('A program ends when all of its stacks are done; "break" leaves a loop.')],
  [
    /^(?:class|with|assert|raise|yield|async for|nonlocal)\b/,
    ([word]) => say('Blocks have nothing like "{word}".', { word })
  ],
  [/^while [^]*\belse\s*:/, () => say('A loop has no "else" in blocks: put it below the loop.')],
  [/^\w+\s*=\s*\w+\s*=(?!=)/, () => say('One variable a line: blocks set them one by one.')],
  [/^\w+\s*,\s*\w+\s*=/, () => say('One variable a line: blocks set them one by one.')],
  [/^[^"'#]+;/, () => say('One statement a line, without semicolons.')],
  [/^lambda\b/, () => say('"lambda:" stands where a condition is waited for, and nowhere else.')],
  [
    /^(?:sum|sorted|reversed|enumerate|zip|map|filter|any|all|type|isinstance|dict|set|tuple)\(/,
    ([given]) =>
      say('Blocks have no {word}: go through the list with "for ... in each(...):".', { word: given.slice(0, -1) })
  ],
  [/^(?:\w+\.)?(\w+)\(/, ([, name]) => (Object.hasOwn(CALLS, name) ? instead(CALLS[name]) : '')]
];
/** `range` leaves its end out. */
function counted(name: string, given: string): string {
  const parts = given.split(',').map((p) => p.trim());
  const [from, to, by] = parts.length === 1 ? ['0', parts[0], '1'] : [parts[0], parts[1], parts[2] ?? '1'];
  const n = Number(to);
  const last = Number.isFinite(n) ? String(n - (by.startsWith('-') ? -1 : 1)) : `${to} - 1`;
  return parts.length === 1 && name === 'i'
    ? `for _ in range(${to}):`
    : `for ${name} in from_to(${from}, ${last}, ${by}):`;
}
function worked(a: string, sign: string, b: string): string {
  if (sign === '//') return `floor(${a} / ${b})`;
  if (sign === '%') return `remainder(${a}, ${b})`;
  return sign === '**' ? `to_the_power(${a}, ${b})` : `${a} ${sign} ${b}`;
}

/** So much of a text is looked at: nobody writes a longer line by hand. */
const LONGEST = 400;
/** What to write in place of something that no block says; nothing where nothing is known of it. */
export function counterpart(text: string): string | undefined {
  const line = text.slice(0, LONGEST).split('\n')[0].trim();
  for (const [form, tell] of COUNTERPARTS) {
    // only of "while ... else" all of it is looked at
    const found = form.exec(form.source.includes('else\\s*:') ? text.slice(0, LONGEST).trim() : line);
    const told = found && tell(found);
    if (told) return told;
  }
  return undefined;
}
