/** The sounder of the device, through Web Audio: what the trace says that sounds. */
import type { State } from '../../../../core/trace/query.ts';

type Tone = NonNullable<State['tone']>;
/** Loudest, as a share of what the computer can; and so long a note swells and dies away, so that equal notes are heard apart. */
const LOUDEST = 0.12;
const EDGE_S = 0.012;

/** One note on an audio graph, from `atS` on. @returns ends it, with its edge */
export function sound(
  audio: BaseAudioContext,
  { hertz, level }: Pick<Tone, 'hertz' | 'level'>,
  atS: number
): (atS: number) => void {
  const gain = audio.createGain();
  const loud = (LOUDEST * level) / 100;
  gain.gain.setValueAtTime(0, atS);
  gain.gain.linearRampToValueAtTime(loud, atS + EDGE_S);
  const osc = audio.createOscillator();
  osc.type = 'triangle';
  osc.frequency.value = hertz;
  osc.connect(gain).connect(audio.destination);
  osc.start(atS);
  return (toS) => {
    gain.gain.cancelScheduledValues(toS);
    gain.gain.setValueAtTime(loud, toS);
    gain.gain.linearRampToValueAtTime(0, toS + EDGE_S);
    osc.stop(toS + EDGE_S);
  };
}

export class Tones {
  private audio: AudioContext | undefined;
  private end: ((atS: number) => void) | undefined;
  private now: Tone | undefined;

  play(tone: Tone | undefined): void {
    const { now } = this;
    // the same note again, by another event, is another note
    if (tone?.sinceUs === now?.sinceUs && tone?.hertz === now?.hertz && tone?.level === now?.level) return;
    this.now = tone;
    try {
      this.end?.(this.audio!.currentTime);
      this.end = undefined;
      if (!tone || tone.level === 0) return;
      this.audio ??= new AudioContext();
      // after the edge of the one before
      this.end = sound(this.audio, tone, this.audio.currentTime + EDGE_S);
    } catch {
      // this computer has no sound; the trace still shows the tone
    }
  }
}
