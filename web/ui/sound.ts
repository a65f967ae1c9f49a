/** Sounds short tones, where the browser lets it. What they say is shown too. */
export function sound(times = 1): void {
  try {
    const context = new AudioContext();
    for (let n = 0; n < times; n++) {
      const tone = context.createOscillator();
      const volume = context.createGain();
      volume.gain.value = 0.25;
      tone.frequency.value = 880;
      tone.connect(volume).connect(context.destination);
      tone.start(context.currentTime + n * 0.6);
      tone.stop(context.currentTime + n * 0.6 + (times === 1 ? 0.9 : 0.4));
    }
  } catch {
    // The figure shows it all the same.
  }
}
