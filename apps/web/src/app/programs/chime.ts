import { inject, Injectable, signal } from '@angular/core';
import { News } from '../news/news';

/** Where a browser remembers that its person wants to hear of what comes. */
const KEY = 'foglio chime';

/** Two soft notes, in hertz, and how long each sounds, in seconds. */
const NOTES = [659, 880];
const SECONDS = 0.18;

/** A sound when another program prints to Foglio, for whoever wants one. */
@Injectable({ providedIn: 'root' })
export class Chime {
  readonly isOn = signal(localStorage.getItem(KEY) === 'on');
  private readonly heard = new Set<string>();

  constructor() {
    inject(News)
      .of('incoming')
      .subscribe(({ id }) => {
        // Once for each job, whatever else becomes of it.
        if (this.heard.has(id)) return;
        this.heard.add(id);
        if (this.isOn()) this.play();
      });
  }

  switch(): void {
    this.isOn.update((on) => !on);
    localStorage.setItem(KEY, this.isOn() ? 'on' : 'off');
    if (this.isOn()) this.play();
  }

  private play(): void {
    const context = new AudioContext();
    NOTES.forEach((frequency, at) => {
      const [tone, loudness] = [context.createOscillator(), context.createGain()];
      tone.frequency.value = frequency;
      loudness.gain.value = 0.05;
      tone.connect(loudness).connect(context.destination);
      tone.start(context.currentTime + at * SECONDS);
      tone.stop(context.currentTime + (at + 1) * SECONDS);
    });
    setTimeout(() => void context.close(), NOTES.length * SECONDS * 1000 + 200);
  }
}
