import { defineBlock, number } from '../define.ts';

/** Length of a beep, s. */
export const BEEP_S = 0.15;
export const BEEP_HZ = 990;

export const tone = defineBlock({
  kind: 'sound.tone',
  section: 'sound',
  shape: 'step',
  words: 'tone {pitch} Hz for {time} s',
  label: ['Tone', 'a pitch, for a time'],
  slots: {
    pitch: number({ default: 392, unit: 'Hz', min: 20, max: 10000 }),
    time: number({ default: 0.5, unit: 's', min: 0, max: 60 })
  },
  help: 'Sounds a tone and waits until it is over. Type Hz, or a note such as A4, which is 440 Hz.',
  *run({ device }, { pitch, time }) {
    device.tone(pitch, time);
    yield { us: Math.round(time * 1e6) };
  },
  python: (p) => p.line(`${p.wait}tone(${p.slot('pitch')}, ${p.slot('time')})`)
});

export const beep = defineBlock({
  kind: 'sound.beep',
  section: 'sound',
  shape: 'step',
  words: 'beep',
  label: ['Beep', 'short and high'],
  slots: {},
  help: 'A short high tone.',
  *run({ device }) {
    device.tone(BEEP_HZ, BEEP_S);
    yield { us: Math.round(BEEP_S * 1e6) };
  },
  python: (p) => p.line(`${p.wait}beep()`)
});
