/** Two rising tones: what was asked for is done. */
export function rising(): void {
  const audio = new AudioContext();
  [523.25, 783.99].forEach((hertz, i) => {
    const osc = audio.createOscillator();
    const gain = audio.createGain();
    osc.frequency.value = hertz;
    gain.gain.value = 0.08;
    osc.connect(gain).connect(audio.destination);
    osc.start(audio.currentTime + i * 0.14);
    osc.stop(audio.currentTime + i * 0.14 + 0.13);
  });
}
