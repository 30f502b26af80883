/** A tone, and three of a higher one where it is urgent. */
import { Injectable } from '@angular/core';

const SECONDS = 0.3;

@Injectable({ providedIn: 'root' })
export class Sound {
  ring(isUrgent: boolean): void {
    const audio = new AudioContext();
    const times = isUrgent ? 3 : 1;
    for (let k = 0; k < times; k++) {
      const tone = audio.createOscillator();
      const gain = audio.createGain();
      gain.gain.value = isUrgent ? 0.12 : 0.07;
      tone.frequency.value = isUrgent ? 880 : 620;
      tone.connect(gain).connect(audio.destination);
      tone.start(audio.currentTime + k * (SECONDS + 0.12));
      tone.stop(audio.currentTime + k * (SECONDS + 0.12) + SECONDS);
      if (k === times - 1) tone.onended = () => void audio.close();
    }
  }
}
