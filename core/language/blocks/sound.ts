import { any, defineBlock, number, text } from '../define.ts';

/** Length of a beep, s. */
export const BEEP_S = 0.15;
export const BEEP_HZ = 990;
const pitch = number({ default: 392, unit: 'Hz', min: 20, max: 10000 });

export const tone = defineBlock({
  kind: 'sound.tone',
  section: 'sound',
  shape: 'step',
  takesTime: true,
  words: 'tone {pitch} Hz for {time} s',
  label: ['Tone', 'a pitch, for a time'],
  also: 'buzz, sound, frequency',
  slots: { pitch, time: number({ default: 0.5, unit: 's', min: 0, max: 60 }) },
  help: 'Sounds a tone and waits until it is over. Type Hz, or a note such as A4, which is 440 Hz.',
  *run({ device }, { pitch, time }) {
    device.tone(pitch, time);
    yield { us: Math.round(time * 1e6) };
  },
  python: 'await tone({pitch}, {time})'
});

export const startTone = defineBlock({
  kind: 'sound.start',
  section: 'sound',
  shape: 'step',
  words: 'start tone {pitch} Hz',
  label: ['Start a tone', 'until told otherwise'],
  slots: { pitch },
  help: 'Starts a tone and goes on at once. It sounds until another tone or silence.',
  example: `start_tone(392)
wait(1)
silence()`,
  mistake: 'A tone that is started and silenced at once cannot be heard: wait between the two.',
  run({ device }, { pitch }) {
    device.startTone(pitch);
  },
  python: 'start_tone({pitch})'
});

export const silence = defineBlock({
  kind: 'sound.silence',
  section: 'sound',
  shape: 'step',
  words: 'silence',
  label: ['Silence', 'ends the tone'],
  slots: {},
  help: 'Ends the tone that sounds.',
  example: `start_tone(392)
wait(1)
silence()`,
  run({ device }) {
    device.silence();
  },
  python: 'silence()'
});

export const beep = defineBlock({
  kind: 'sound.beep',
  section: 'sound',
  shape: 'step',
  takesTime: true,
  words: 'beep',
  label: ['Beep', 'short and high'],
  also: 'buzz, horn, sound',
  slots: {},
  help: 'A short high tone.',
  *run({ device }) {
    device.tone(BEEP_HZ, BEEP_S);
    yield { us: Math.round(BEEP_S * 1e6) };
  },
  python: 'await beep()'
});

export const play = defineBlock({
  kind: 'sound.play',
  section: 'sound',
  shape: 'step',
  takesTime: true,
  words: 'play {notes}',
  label: ['Play', 'notes, in the tempo'],
  slots: { notes: text('G4 A4 B4*2 - D5') },
  help: 'Plays notes one after the other, one beat each: C4 is a note, - a rest, *2 makes it two beats long and /2 half a beat.',
  *run({ device }, { notes }) {
    for (const { hertz, us } of device.notes(notes)) {
      if (hertz > 0) device.tone(hertz, us / 1e6);
      yield { us };
    }
  },
  python: 'await play({notes})'
});

export const tempo = defineBlock({
  kind: 'sound.tempo',
  section: 'sound',
  shape: 'step',
  words: 'tempo {beats} beats a minute',
  label: ['Tempo', 'beats a minute'],
  slots: { beats: number({ default: 96, min: 10, max: 600 }) },
  help: 'How fast notes are played from here on. Before it is set, the tempo is 96 beats a minute.',
  example: `tempo(140)
play("G4 A4 B4*2")`,
  run({ device }, { beats }) {
    device.tempo(beats);
  },
  python: 'tempo({beats})'
});

export const volume = defineBlock({
  kind: 'sound.volume',
  section: 'sound',
  shape: 'step',
  words: 'volume {percent} %',
  label: ['Volume', '0 to 100 %'],
  slots: { percent: number({ default: 70, unit: '%', min: 0, max: 100 }) },
  help: 'How loud tones are from here on.',
  example: `volume(30)
beep()
volume(90)
beep()`,
  run({ device }, { percent }) {
    device.volume(percent);
  },
  python: 'volume({percent})'
});

export const say = defineBlock({
  kind: 'sound.say',
  section: 'sound',
  shape: 'step',
  words: 'read aloud {words}',
  label: ['Read aloud', 'a text, where the computer can speak'],
  slots: { words: any('the bell is awake') },
  help: 'The computer reads the text aloud where it offers speech; the caption under the face always shows it. It goes on at once.',
  run({ device }, { words }) {
    device.say(words);
  },
  python: 'say({words})'
});
