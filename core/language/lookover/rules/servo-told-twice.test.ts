import { cases } from '../../../testing/cases.ts';

cases('servo-told-twice', {
  fires: {
    'one after the other': 'striker.angle(120)\nstriker.angle(60)\nwait(1)',
    'with something quick between': 'striker.angle(120)\nlog("hit")\nstriker.share(20)\nwait(1)'
  },
  silent: {
    'with a wait': 'striker.angle(120)\nwait(0.3)\nstriker.angle(60)\nwait(1)',
    'two servos': 'striker.angle(120)\npan.angle(60)\nwait(1)',
    slowly: 'striker.angle(120)\nstriker.slowly(60, seconds=1)'
  }
});
