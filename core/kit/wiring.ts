/** The wiring check: what cannot work about a kit itself, whatever the program is. */
import { socketsFor, socketsOf, type Kit, type Part } from './kit.ts';
import { impossible } from './possible.ts';
import { aPart, typeName, wrongWith } from './parts/parts.ts';
import { say, word } from '../words.ts';

export type Wiring = { socket: string; text: string };
const motorsFor = (kit: Kit, wheel: string): number =>
  kit.parts.filter((p) => p.type === 'motor' && p.drives === wheel).length;
const oneMotor = (name: string): Wiring => ({
  socket: '',
  text: say('The {name} needs exactly one motor.', { name: word(name) })
});
/** What cannot be, whatever is done with it: two parts in one socket, two motors on one wheel, measures that no machine has. */
export function cannotBe(kit: Kit): Wiring[] {
  const sockets = kit.parts.map((p) => p.socket);
  const twice = [...new Set(sockets.filter((s, i) => sockets.indexOf(s) < i))];
  return [
    ...twice.map((socket) => ({
      socket,
      text: say('Two parts are in socket {socket}. Move one of them.', { socket })
    })),
    ...kit.wheels.flatMap(({ id, name }) => (motorsFor(kit, id) > 1 ? [oneMotor(name)] : [])),
    ...impossible(kit).map(({ text }) => ({ socket: '', text }))
  ];
}
export function checkWiring(kit: Kit): Wiring[] {
  const found = cannotBe(kit);
  for (const part of kit.parts) {
    const wrong = wrongWith(part);
    if (wrong) found.push({ socket: part.socket, text: wrong });
    if (!socketsOf(kit).includes(part.socket))
      found.push({
        socket: part.socket,
        text: say('{name} has no socket {socket}.', { name: kit.name, socket: part.socket })
      });
    else if (!socketsFor(kit, part.type).includes(part.socket))
      found.push({ socket: part.socket, text: doesNotFit(kit, part.type, part.socket) });
  }
  for (const { id, name } of kit.wheels) if (!motorsFor(kit, id)) found.push(oneMotor(name));
  return found;
}
/** What is said of a part in a socket that does not take it. */
export function doesNotFit(kit: Kit, type: Part['type'], socket: string): string {
  const n = socketsFor(kit, type).join(', ');
  return n
    ? say('A {typeName} does not fit socket {socket}. It goes into {n}.', { typeName: typeName(type), socket, n })
    : say('{name} has no socket for {aPart}.', { name: kit.name, aPart: aPart(type) });
}
