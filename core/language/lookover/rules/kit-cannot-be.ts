/** kit-cannot-be: two parts in one socket, a wheel without a motor, measures that no machine has. */
import { impossible } from '../../../kit/possible.ts';
import { say, word } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const kitCannotBe: Rule = ({ kit }) => {
  const sockets = kit.parts.map((p) => p.socket);
  const twice = [...new Set(sockets.filter((s, i) => sockets.indexOf(s) < i))];
  const without = kit.wheels.filter(
    ({ id }) => kit.parts.filter((p) => p.type === 'motor' && p.drives === id).length > 1
  );
  return [
    ...twice.map((socket) => say('Two parts are in socket {socket}. Move one of them.', { socket })),
    ...without.map(({ name }) => say('The {name} needs exactly one motor.', { name: word(name) })),
    ...impossible(kit).map(({ text }) => text)
  ].map((says): Remark => ({
    rule: 'kit-cannot-be',
    severity: 'will not work',
    blocks: [],
    says,
    todo: say('Put it right on the kit sheet.'),
    mends: []
  }));
};
