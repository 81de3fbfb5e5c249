/** not-a-note: notes that are written into a block and do not exist stop the program there. */
import { RunError } from '../../meaning.ts';
import { playedNotes, TEMPO } from '../../notes.ts';
import { liveSteps } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const notANote: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((step): Remark[] => {
    const { notes } = step.slots;
    if (step.kind !== 'sound.play' || (typeof notes !== 'string' && typeof notes !== 'number')) return [];
    try {
      playedNotes(String(notes), TEMPO);
      return [];
    } catch (error) {
      if (!(error instanceof RunError)) throw error;
      return [
        {
          rule: 'not-a-note',
          severity: 'will not work',
          blocks: [step.id],
          says: say('{note} is no note: the program stops here.', { note: error.values }),
          todo: say(
            'Write letters A to G with an octave, such as C4 or F#5; - is a rest, *2 two beats, /2 half a beat.'
          ),
          mends: []
        }
      ];
    }
  });
