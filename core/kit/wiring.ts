/** The wiring check: what cannot work about a kit itself, whatever the program is. */
import { socketsFor, socketsOf, type Kit, type Part } from './kit.ts';
import { impossible } from './possible.ts';
import { aPart, typeName, wrongWith } from './parts/parts.ts';
import { say, word } from '../words.ts';

export type Wiring = { socket: string; text: string };
export function checkWiring(kit: Kit): Wiring[] {
  const found: Wiring[] = [];
  const seen = new Set<string>();
  for (const part of kit.parts) {
    if (seen.has(part.socket))
      found.push({
        socket: part.socket,
        text: say('Two parts are in socket {socket}. Move one of them.', { socket: part.socket })
      });
    seen.add(part.socket);
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
  for (const { id, name } of kit.wheels)
    if (kit.parts.filter((p) => p.type === 'motor' && p.drives === id).length !== 1)
      found.push({ socket: '', text: say('The {name} needs exactly one motor.', { name: word(name) }) });
  for (const { text } of impossible(kit)) found.push({ socket: '', text });
  return found;
}
/** What is said of a part in a socket that does not take it. */
export function doesNotFit(kit: Kit, type: Part['type'], socket: string): string {
  const n = socketsFor(kit, type).join(', ');
  return n
    ? say('A {typeName} does not fit socket {socket}. It goes into {n}.', { typeName: typeName(type), socket, n })
    : say('{name} has no socket for {aPart}.', { name: kit.name, aPart: aPart(type) });
}
