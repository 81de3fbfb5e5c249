/** What can be looked over in a text project: the parts that it names at its top, against the kit sheet. */
import { partAt, partName, wheelOf, type Kit } from '../../kit/kit.ts';
import { aPart, typeName } from '../../kit/parts/parts.ts';
import { identifier } from '../python/names.ts';
import { missingMotors } from '../python/fit.ts';
import { typeOf } from '../python/parts.ts';
import { partIdentifier } from '../python/print.ts';
import { readPython } from '../python/read.ts';
import type { Remark } from './remark.ts';
import { say } from '../../words.ts';

const DECLARES = /^([A-Za-z_]\w*)\s*=\s*([A-Z]\w*)\(["'](\w+)["']\)/;

/** Sockets that the wheels name and that hold no motor. */
const wheels = (text: string, kit: Kit): Remark[] =>
  missingMotors(text, kit).map(({ line, socket, there }): Remark => {
    const motors = kit.parts.filter((p) => wheelOf(kit, p));
    return {
      rule: there ? 'socket-wrong-part' : 'socket-empty',
      severity: 'will not work',
      blocks: [`line ${line + 1}`],
      says: there
        ? say('The program uses {aPart} in {slot}, but the {partName} sits there.', {
            aPart: aPart('motor'),
            slot: socket,
            partName: partName(kit, socket)
          })
        : say('The program uses {aPart} in {slot}, and nothing is plugged in there.', {
            aPart: aPart('motor'),
            slot: socket
          }),
      todo: motors.map((p) => say('Your {name} sits in {socket}.', { name: p.name, socket: p.socket })).join(' '),
      mends: []
    };
  });

/** no-such-word: a choice that is misspelt. It stops the program where it stands. */
const words = (text: string, kit: Kit): Remark[] => {
  const read = readPython(text, kit);
  return (read.ok ? [] : read.problems).flatMap(({ line, message, word }) =>
    word
      ? [
          {
            rule: 'no-such-word',
            severity: 'will not work',
            blocks: [`line ${line + 1}`],
            says: say('Line {n} stops the program: {message}', { n: line + 1, message }),
            todo: say('Write one of these words.'),
            mends: []
          } satisfies Remark
        ]
      : []
  );
};

/** socket-empty, socket-wrong-part, part-renamed, no-such-word; blocks are lines, as in the trace of a text. */
export function lookOverText(text: string, kit: Kit): Remark[] {
  const named = text.split('\n').flatMap((line, i): Remark[] => {
    const found = DECLARES.exec(line);
    const type = found && typeOf(found[2]);
    if (!found || !type) return [];
    const [, name, , socket] = found;
    const blocks = [`line ${i + 1}`];
    const there = partAt(kit, socket);
    if (there?.type !== type) {
      const others = kit.parts.filter((p) => p.type === type);
      return [
        {
          rule: there ? 'socket-wrong-part' : 'socket-empty',
          severity: 'will not work',
          blocks,
          says: there
            ? say('The program uses {aPart} in {slot}, but the {partName} sits there.', {
                aPart: aPart(type),
                slot: socket,
                partName: partName(kit, socket)
              })
            : say('The program uses {aPart} in {slot}, and nothing is plugged in there.', {
                aPart: aPart(type),
                slot: socket
              }),
          todo: others.length
            ? others.map((p) => say('Your {name} sits in {socket}.', { name: p.name, socket: p.socket })).join(' ')
            : say('The kit sheet has no {typeName}. Plug one in, or take the block out.', { typeName: typeName(type) }),
          mends: others.slice(0, 2).map((p) => ({
            label: say('Change the line to {name} ({socket})', { name: p.name, socket: p.socket }),
            apply: (program, k) => ({ program, kit: k }),
            text: (t) => replaceLine(t, i, line.replace(/\(["']\w+["']\)/, `("${p.socket}")`))
          }))
        }
      ];
    }
    const now = identifier(partIdentifier(there, type, socket));
    // the text may have a longer name for it, to tell two apart
    if (name === now || name.startsWith(`${now}_`) || identifier(there.name) === name) return [];
    return [
      {
        rule: 'part-renamed',
        severity: 'consider',
        blocks,
        says: say('The text calls the part in {socket} {name}; the kit sheet calls it {now}.', {
          socket,
          name,
          now: there.name
        }),
        todo: say('Call it the same in both, so that both are understood.'),
        mends: [
          {
            label: say('Call it {now} in the text', { now }),
            apply: (program, k) => ({ program, kit: k }),
            text: (t) => t.replace(new RegExp(`\\b${name}\\b`, 'g'), now)
          }
        ]
      }
    ];
  });
  return [...wheels(text, kit), ...named, ...words(text, kit)];
}
const replaceLine = (text: string, at: number, line: string): string =>
  text
    .split('\n')
    .map((l, i) => (i === at ? line : l))
    .join('\n');
