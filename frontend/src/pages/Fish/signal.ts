/** Buzz and tones: said to the hand and the ear as well as to the eye. */
import { useEffect, useRef } from "react";
import { load, save } from "../../lib/store";

/** Whether the angler wants sound; kept on the device. */
export function loud(): boolean {
  return load("sound", true);
}

export function setLoud(on: boolean) {
  save("sound", on);
}

/** One tone after the other; silent where sound is not allowed. */
function sound(tones: number[]) {
  try {
    const audio = new AudioContext();
    tones.forEach((hertz, i) => {
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      tone.frequency.value = hertz;
      volume.gain.value = 0.25;
      tone.connect(volume).connect(audio.destination);
      tone.start(audio.currentTime + i * 0.22);
      tone.stop(audio.currentTime + i * 0.22 + 0.16);
    });
    setTimeout(() => void audio.close(), 1500);
  } catch {
    // No sound on this device: the words and the buzz say it too.
  }
}

export const SIGNALS = {
  /** The fly is deep enough. */
  deep: { buzz: [200, 100, 200], tones: [880, 1175] },
  /** The fly is on the bottom. */
  bottom: { buzz: [500, 120, 500, 120, 500], tones: [220, 220, 220] },
  /** A stretch has had its time. */
  enough: { buzz: [80, 60, 80], tones: [659, 494] },
} as const;

export function signal(which: keyof typeof SIGNALS) {
  const { buzz, tones } = SIGNALS[which];
  navigator.vibrate?.([...buzz]);
  if (loud()) sound([...tones]);
}

/** Given once, each time it becomes true. */
export function useSignal(on: boolean, which: keyof typeof SIGNALS) {
  const before = useRef(false);
  useEffect(() => {
    if (on && !before.current) signal(which);
    before.current = on;
  }, [on, which]);
}
