/** What is said after sending, or where it comes to nothing. */
import { hasWheels, type Kit } from '../../../../core/kit/kit.ts';
import { kitName } from '../../../../core/link/file.ts';
import { LinkClosed, LinkProblem } from '../../../../core/link/port.ts';
import { later, say } from '../../../../core/words.ts';

/** What a device can be like, as its chip tells it. */
export const STATUSES = [
  later('not plugged in'),
  later('charging only'),
  later('a drive'),
  later('no MicroPython'),
  later('wrong firmware'),
  later('another device'),
  later('library missing'),
  later('library old'),
  later('asking'),
  later('ready'),
  later('sending'),
  later('busy running'),
  later('on battery'),
  later('fallen over'),
  later('stuck'),
  later('sleeping'),
  later('flat')
] as const;
export type Status = (typeof STATUSES)[number];

export function sentSays({
  name,
  device,
  number,
  again,
  start,
  real = false,
  kit
}: {
  name: string;
  device: string;
  number: number;
  /** how many pieces had to be said again */
  again: number;
  /** it starts on its cable */
  start: boolean;
  /** it is no stand-in */
  real?: boolean;
  kit: Kit;
}): string {
  const says = [
    real && !start
      ? say('"{name}" is on the board as program {number}. Press Dot on it.', { name, number })
      : start
        ? say('"{name}" is on {name2} as program {number} and runs on its cable.', { name, name2: device, number })
        : say(
            '"{name}" is on {name2} as program {number}. Unplug it, stand it in the yard, and press Dot on its face.',
            {
              name,
              name2: device,
              number
            }
          )
  ];
  if (start && hasWheels(kit)) says.push(say('It drives as far as its cable lets it: hold it up, or leave it room.'));
  if (again)
    says.push(
      say(
        '{n, plural, one {# piece was lost on the way and} other {# pieces were lost on the way and}} had to be said again: try another cable.',
        { n: again }
      )
    );
  return says.join(' ');
}
/** @param flat its battery gave out */
export function failedSays(error: unknown, flat: boolean): string {
  if (error instanceof LinkProblem) return error.message;
  if (!(error instanceof LinkClosed)) return say('Sending failed: {message}', { message: (error as Error).message });
  return flat
    ? say(
        'Its battery gave out while sending. The program that was on the device before is still there, whole. Charge it: plug it in again.'
      )
    : say(
        'Unplugged while sending. The program that was on the device before is still there, whole. Plug it in and send again: it goes on where it was.'
      );
}
export const elsewhereSays = (unit: { name: string; device: string }, device: string): string =>
  say('{name} is a {other}: it cannot stand in the yard of a {device}. Open a project for it.', {
    name: unit.name,
    other: kitName(unit.device),
    device: kitName(device)
  });
export const heldSays = (name: string): string =>
  say('{name} hangs on another window of this browser. Close that window, and plug it in here.', {
    name
  });
/** A port that cannot be opened. */
export const portSays = (error: Error): string =>
  say('The serial port cannot be opened: {message} Is another program using it?', { message: error.message });
/** @param problem the first of them */
export const pinsSays = (problem: string): string =>
  say('{problem} Fill in the pins page of the kit sheet first.', { problem });
/** Runs that were made out of reach are in the trace. */
export const fetchedSays = (n: number): string =>
  n === 1
    ? say('What it did on its own is in the trace now, beside the rehearsal.')
    : say(
        'It ran {n} times on its own. The last run is in the trace now; all of them are under "Runs of this project".',
        {
          n
        }
      );
