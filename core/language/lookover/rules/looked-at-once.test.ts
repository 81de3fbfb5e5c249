import { cases } from '../../../testing/cases.ts';

cases('looked-at-once', {
  fires: {
    'a button at the start': 'if dot.is_held():\n    beep()',
    'after something quick': 'display.dark()\nif distance.cm() < 20:\n    beep()'
  },
  silent: {
    'in a loop': 'while True:\n    if dot.is_held():\n        beep()\n    wait_ms(20)',
    'after a wait': 'wait(2)\nif dot.is_held():\n    beep()',
    'a number of its own': 'n = 3\nif n > 2:\n    beep()'
  }
});
