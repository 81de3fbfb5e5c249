/**
 * The bell. A struck bell sounds in partials that are no whole multiples of one another, each dying away at its own pace; the
 * five lowest of a church bell are called hum, prime, tierce, quint and nominal: 0.5, 1, 1.2, 1.5 and 2 times the prime
 * (Rossing, The Science of Sound; from memory).
 */
const PRIME_HZ = 587.33;
const PARTIALS = [
  [0.5, 0.5, 2.6],
  [1, 1, 1.8],
  [1.2, 0.7, 1.4],
  [1.5, 0.4, 1],
  [2, 0.6, 0.8]
] as const;
const LOUD = 0.06;

export function bell(): void {
  const audio = new AudioContext();
  for (const [share, level, seconds] of PARTIALS) {
    const osc = audio.createOscillator();
    const gain = audio.createGain();
    osc.frequency.value = PRIME_HZ * share;
    gain.gain.setValueAtTime(LOUD * level, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.0005, audio.currentTime + seconds);
    osc.connect(gain).connect(audio.destination);
    osc.start();
    osc.stop(audio.currentTime + seconds);
  }
}
