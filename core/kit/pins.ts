/**
 * A kit on a board of its own that runs MicroPython: which lead of which part hangs on which pin. The table stands on the kit
 * sheet, by lead: `J1.forward` is the forward input of the driver of the motor in J1. From it the board's own file is printed.
 */
import { later, say, word } from '../words.ts';
import { rasterOf } from './display.ts';
import { BOARDS } from './boards.ts';
import type { Kit, Part } from './kit.ts';

/** A lead: its key in the table, and what it is. */
export type Lead = { key: string; says: string; optional?: boolean };
/** What hangs on pins: its leads, or why it cannot be there. */
export type Wired = { of: string; name: string; leads: readonly Lead[]; cannot?: string };

const MOTOR = [
  ['forward', later('forward input of its driver')],
  ['back', later('back input of its driver')],
  ['power', later('or power, on a driver with power and direction')],
  ['direction', later('and direction')],
  ['encoder', later('encoder, where it has one')]
] as const;
const SIGNAL = [['signal', later('signal')]] as const;
const LEADS: Partial<Record<Part['type'], readonly (readonly [string, string])[]>> = {
  motor: MOTOR,
  servo: SIGNAL,
  spin: SIGNAL,
  distance: [
    ['trigger', later('trigger')],
    ['echo', later('echo')]
  ],
  line: [['signal', later('signal, on a pin that measures voltage')]]
};
const CANNOT: Partial<Record<Part['type'], string>> = {
  colour: later('its own chip is not spoken to yet'),
  lamp: later('a lamp on a resistor is not driven yet; use addressable lamps')
};
const analogue = [['signal', later('signal, on a pin that measures voltage')]] as const;
/** What is built into the boards that ship, as it is built on a board of one's own. */
const BUILT_IN: Record<string, readonly (readonly [string, string])[]> = {
  lamps: [['data', later('data line of the addressable lamps, in their order')]],
  motion: [
    ['sda', later('data of the motion sensor (I2C)')],
    ['scl', later('clock of the motion sensor (I2C)')]
  ],
  nose: [['signal', later('switch to ground')]],
  light: analogue,
  moisture: analogue
};

/** Everything of a kit that hangs on pins, in the order of its sheet. */
export function wired(kit: Kit): Wired[] {
  const leads = (of: string, list: readonly (readonly [string, string])[], optional = false): Lead[] =>
    list.map(([name, says]) => ({ key: `${of}.${name}`, says: word(says), ...(optional ? { optional } : {}) }));
  const parts = kit.parts.map((p): Wired => {
    const list = LEADS[p.type];
    const name = `${p.socket} ${word(p.name)}`;
    if (!list) return { of: p.socket, name, leads: [], cannot: word(CANNOT[p.type] ?? later('it has no leads')) };
    return { of: p.socket, name, leads: leads(p.socket, list, false) };
  });
  const builtIn: readonly string[] = BOARDS[kit.device].builtIn;
  const own = builtIn.flatMap((what): Wired[] => {
    if (what === 'gyro') return [];
    if (what === 'lamps' && !kit.chassis.lamps.length) return [];
    if (what === 'edges')
      return (['left', 'right'] as const).map((side) => ({
        of: `edge ${side}`,
        name: say('touch edge {side}', { side: word(side) }),
        leads: leads(`edge ${side}`, SIGNAL, true)
      }));
    const of = what === 'motion' ? 'wire' : what;
    const list = BUILT_IN[what];
    if (!list)
      return [{ of, name: word(what), leads: [], cannot: say('it cannot be felt on a board of your own yet') }];
    return [{ of, name: word(what), leads: leads(of, list, true) }];
  });
  const display: Wired[] = !kit.display
    ? []
    : kit.display.type === 'screen'
      ? [
          {
            of: 'display',
            name: say('Display'),
            leads: [],
            cannot: say('a screen is not driven yet; use addressable lamps')
          }
        ]
      : [
          {
            of: 'display',
            name: say('Display'),
            leads: leads('display', [['data', later('data line of the addressable lamps, row by row')]], true)
          }
        ];
  return [
    ...parts,
    ...['Dot', 'Bar'].map((name) => ({
      of: name,
      name: say('button {name}', { name: word(name) }),
      leads: leads(name, [['signal', later('switch to ground')]])
    })),
    ...own,
    ...display,
    { of: 'sounder', name: say('sounder'), leads: leads('sounder', SIGNAL, true) },
    {
      of: 'battery',
      name: say('battery'),
      leads: leads('battery', [['signal', later('a third of its voltage')]], true)
    },
    {
      of: 'radio',
      name: say('radio'),
      leads: leads(
        'radio',
        [
          ['tx', later('what it sends (UART)')],
          ['rx', later('what it hears (UART)')]
        ],
        true
      )
    }
  ];
}
/** What is wrong with a table: pins given twice, leads without a pin, parts that cannot be. Each a sentence. */
export function pinProblems(kit: Kit): { key: string; says: string }[] {
  const pins = kit.pins ?? {};
  const all = wired(kit);
  const known = new Map(all.flatMap((w) => w.leads.map((lead) => [lead.key, w] as const)));
  const by = new Map<number, string[]>();
  for (const [key, pin] of Object.entries(pins)) if (known.has(key)) by.set(pin, [...(by.get(pin) ?? []), key]);
  const told = (key: string): string => `${known.get(key)!.name}, ${key.slice(key.lastIndexOf('.') + 1)}`;
  const doubles = [...by].flatMap(([pin, keys]) =>
    keys.length < 2
      ? []
      : keys.map((key) => ({
          key,
          says: say('Pin {pin} is given twice: {leads}.', { pin, leads: keys.map(told).join('; ') })
        }))
  );
  const missing = all.filter((w) => {
    if (!w.leads.length || w.leads[0].optional) return false;
    const has = (name: string): boolean => `${w.of}.${name}` in pins;
    return w.leads.some((lead) => lead.key === `${w.of}.forward`)
      ? !((has('forward') && has('back')) || (has('power') && has('direction')))
      : !w.leads.every((lead) => lead.key in pins);
  });
  const says = say('No pins yet: {parts}.', { parts: missing.map((w) => w.name).join(', ') });
  return [...doubles, ...missing.map((w) => ({ key: w.leads[0].key, says }))];
}
const py = (value: unknown): string =>
  JSON.stringify(value)
    .replace(/\btrue\b/g, 'True')
    .replace(/\bfalse\b/g, 'False');
/**
 * The file `lib/mossbell_pins.py` of a board of one's own.
 * @param full speed at 100 % power, m/s; @param font the letters of its display, five octal digits each
 */
export function printPins(kit: Kit, full: number, font: Readonly<Record<string, string>>): string {
  const parts = kit.parts.map(
    (p) =>
      `    ${py(p.socket)}: {"type": ${py(p.type)}, "name": ${py(p.name)}${p.type === 'motor' && p.mounted === 'mirrored' ? ', "mirrored": True' : ''}${p.type === 'line' ? `, "threshold": ${p.threshold}` : ''}},`
  );
  const known = new Set(wired(kit).flatMap((w) => w.leads.map((lead) => lead.key)));
  const leads = Object.entries(kit.pins ?? {})
    .filter(([key]) => known.has(key))
    .map(([key, pin]) => `    ${py(key)}: ${pin},`);
  const raster = kit.display && kit.display.type !== 'screen' ? rasterOf(kit.display) : undefined;
  const size = raster ? `(${raster.columns}, ${raster.rows})` : 'None';
  return [
    `"""Moss Bell: which part of ${kit.name} hangs on which pin. Printed from its kit sheet; change it there."""`,
    '',
    `DEVICE = ${py(kit.device)}`,
    `FULL_SPEED = ${full}  # m/s at 100 %`,
    `ACCELERATION = ${kit.board.accelerationCmS2 / 100}  # m/s^2`,
    `FREE_TURNS = ${kit.motor.freeTurnsPerS}  # of a motor that turns nothing, a second`,
    `COUNTS = ${kit.motor.countsPerTurn}  # of an encoder, a turn`,
    `DIAMETER = ${(kit.wheels[0]?.diameterMm ?? 0) / 1000}  # m`,
    `FULL_V, EMPTY_V = ${kit.battery.fullV}, ${kit.battery.emptyV}`,
    `LAMPS = (${kit.chassis.lamps.map((l) => `${py(l.name)}, `).join('')})`,
    `DISPLAY = ${size}  # columns and rows`,
    'PARTS = {',
    ...parts,
    '}',
    'LEADS = {',
    ...leads,
    '}',
    `FONT = ${raster ? py(font) : '{}'}`,
    ''
  ].join('\n');
}
