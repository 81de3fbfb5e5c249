/** The sounder of the device, through Web Audio. */
export class Tones {
  private audio: AudioContext | undefined;
  private osc: OscillatorNode | undefined;
  private hertz: number | undefined;

  play(hertz: number | undefined): void {
    if (hertz === this.hertz) return;
    this.hertz = hertz;
    try {
      this.osc?.stop();
      this.osc = undefined;
      if (hertz === undefined) return;
      this.audio ??= new AudioContext();
      const gain = this.audio.createGain();
      gain.gain.value = 0.06;
      this.osc = this.audio.createOscillator();
      this.osc.type = 'triangle';
      this.osc.frequency.value = hertz;
      this.osc.connect(gain).connect(this.audio.destination);
      this.osc.start();
    } catch {
      // this computer has no sound; the trace still shows the tone
    }
  }
}
