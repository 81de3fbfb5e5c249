import { cases } from '../../../testing/cases.ts';

cases('not-a-note', {
  fires: {
    'no such letter': 'play("C4 H4 D4")',
    'without an octave': 'play("C D E")',
    'no time': 'play("C4*0")'
  },
  silent: { notes: 'play("G4 A4 B4*2 - D5/2 F#5 Bb3")' }
});
