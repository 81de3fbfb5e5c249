import { cases } from '../../../testing/cases.ts';

cases('wait-of-no-time', {
  fires: { milliseconds: 'beep()\nwait_ms(0.5)\nbeep()', 'a thousandth': 'wait(0.001)\nbeep()' },
  silent: {
    'half a second': 'wait(0.5)\nbeep()',
    'a loop that looks often': 'wait_ms(5)\nbeep()',
    'none at all': 'wait(0)\nbeep()'
  }
});
