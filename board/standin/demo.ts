/** The factory demo: what a device does as it comes out of its box, to show that it lives. It knows no MicroPython REPL. */
import { lampsOf, type Kit } from '../../core/kit/kit.ts';

export const FACTORY_VERSION = '1';
/** What it answers whatever it is told over the cable. */
export const factoryBanner = (name: string): string =>
  `\r\nMoss Bell factory demo ${FACTORY_VERSION} on ${name}. Press Dot to see that it lives.\r\n`;
export function factoryDemo(kit: Kit): string {
  const lamps = lampsOf(kit);
  const turn = [
    ...lamps.flatMap((name) => [
      `Lamp(${JSON.stringify(name)}).on()`,
      'wait(0.2)',
      `Lamp(${JSON.stringify(name)}).off()`
    ]),
    'beep()',
    'wait(0.3)'
  ];
  return [
    'from mossbell import *',
    '',
    '',
    'def main():',
    ...(kit.display ? ['    Display().write("hi")'] : []),
    '    for _ in range(3):',
    ...turn.map((line) => `        ${line}`),
    ...(kit.display ? ['    Display().dark()'] : []),
    '',
    '',
    'run(main)',
    ''
  ].join('\n');
}
