/** Goals of what comes from outside, which others wait for: a press, a sensor that comes to a value, a message that is heard. */
import { eventsOf } from '../../trace/apart.ts';
import { sampleAt } from '../../trace/query.ts';
import { channel } from '../../trace/trace.ts';
import { later, retell, say } from '../../words.ts';
import { defineGoal, inLook, met, num, wanting } from '../goal.ts';

const BUTTONS = { Dot: later('Dot'), Bar: later('Bar') } as const;
export const pressed = defineGoal({
  kind: 'pressed',
  label: later('a button is pressed'),
  fields: {
    button: { type: 'choice', label: later('Button'), of: BUTTONS, first: 'Dot' },
    times: { type: 'number', label: later('times'), unit: '', min: 1, max: 100, first: 1 }
  },
  words: ({ button, times }) =>
    say('{button} is pressed {n, plural, one {once} other {# times}}', { button: retell(button), n: times }),
  check: ({ button, times }, look) => {
    const presses = eventsOf(look.trace, 'input').filter(
      ({ tUs, input, to }) => !to && 'press' in input && input.press === button && inLook(look, tUs)
    );
    const last = presses[times - 1];
    return last
      ? met(last.tUs)
      : wanting(look, say('{button} was pressed {n} times.', { button: retell(button), n: presses.length }));
  }
});

const SIDES = { above: later('above'), below: later('below') } as const;
export const reads = defineGoal({
  kind: 'reads',
  label: later('a sensor comes to a value'),
  fields: {
    sensor: { type: 'channel', label: later('Sensor') },
    is: { type: 'choice', label: later('above or below'), of: SIDES, first: 'above' },
    value: { type: 'number', label: later('Value'), unit: '', min: -10_000, max: 10_000, first: 50 }
  },
  words: ({ sensor, is, value }) =>
    is === 'above'
      ? say('{sensor} comes above {value}', { sensor: titleOf(sensor), value: num(value, 2) })
      : say('{sensor} comes below {value}', { sensor: titleOf(sensor), value: num(value, 2) }),
  check: ({ sensor, is, value }, look) => {
    const c = channel(look.trace, sensor);
    if (!c) return { state: 'missed', says: say('This device has no such sensor.') };
    const so = (tick: number): boolean => (is === 'above' ? sampleAt(c, tick) > value : sampleAt(c, tick) < value);
    const to = Math.min(look.trace.ticks, Math.floor(look.toUs / 1000));
    const from = look.anew ? Math.floor(look.fromUs / 1000) + 1 : Math.ceil(look.fromUs / 1000);
    for (let tick = from; tick < to; tick++)
      // anew it must have been otherwise before
      if (so(tick) && !(look.anew && (tick === 0 || so(tick - 1)))) return met(tick * 1000);
    return wanting(look, say('It did not come there.'));
  }
});
/** What people call a channel without knowing the kit. */
const titleOf = (key: string): string => retell(TITLES[key.replace(/J\d+$/, '')] ?? key);
const TITLES: Readonly<Record<string, string>> = {
  light: later('Light'),
  temperature: later('Temperature'),
  moisture: later('Moisture'),
  distance: later('Distance'),
  heading: later('Heading')
};

export const hears = defineGoal({
  kind: 'hears',
  label: later('a message is heard'),
  fields: { message: { type: 'text', label: later('Message'), first: 'here' } },
  words: ({ message }) => say('The message {message} is heard', { message }),
  check: ({ message }, look) => {
    const found = eventsOf(look.trace, 'heard').find((e) => e.name === message && inLook(look, e.tUs));
    return found ? met(found.tUs) : wanting(look, say('This message was not heard.'));
  }
});
