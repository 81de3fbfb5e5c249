import { cases } from '../../../testing/cases.ts';

cases('written-too-long', {
  fires: { 'a word': 'display.write("hello")\nwait(1)', 'a number': 'display.write(360)\nwait(1)' },
  silent: {
    'two characters': 'display.write("ok")\nwait(1)',
    'it passes by': 'display.pass_by("hello")',
    'a value that is not known': 'display.write(n)\nwait(1)'
  }
});
