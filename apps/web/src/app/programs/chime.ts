import { inject, Injectable, signal } from '@angular/core';
import { Api } from '../api/api';
import { News } from '../news/news';

/** Where a browser remembers that its person wants to hear of what comes. */
const KEY = 'foglio chime';

/** Two soft notes, in hertz, and how long each sounds, in seconds. */
const NOTES = [659, 880];
const SECONDS = 0.18;

/** A sound when another program prints to Foglio, for whoever wants one. */
@Injectable({ providedIn: 'root' })
export class Chime {
  private readonly api = inject(Api);
  readonly isOn = signal(localStorage.getItem(KEY) === 'on');
  /** The number of the latest job that is known; jobs are numbered as they come. Null: it is not known yet. */
  private latest: number | null = null;

  constructor() {
    inject(News)
      .of('incoming')
      .subscribe(({ id }) => this.hear(Number(id)));
    if (this.isOn()) this.lookBack();
  }

  switch(): void {
    this.isOn.update((on) => !on);
    localStorage.setItem(KEY, this.isOn() ? 'on' : 'off');
    if (!this.isOn()) return;
    this.play();
    this.lookBack();
  }

  /** What becomes of a job that came before is no news of one that comes. */
  private hear(id: number): void {
    if (this.latest === null || id <= this.latest) return;
    this.latest = id;
    if (this.isOn()) this.play();
  }

  private lookBack(): void {
    this.api.incoming().subscribe({
      next: ([latest]) => (this.latest = Math.max(this.latest ?? 0, latest?.id ?? 0)),
      // Without it nothing sounds, which nobody misses while the server is away.
      error: () => undefined,
    });
  }

  private play(): void {
    const context = new AudioContext();
    const tones = NOTES.map((frequency, at) => {
      const [tone, loudness] = [context.createOscillator(), context.createGain()];
      tone.frequency.value = frequency;
      loudness.gain.value = 0.05;
      tone.connect(loudness).connect(context.destination);
      tone.start(context.currentTime + at * SECONDS);
      tone.stop(context.currentTime + (at + 1) * SECONDS);
      return tone;
    });
    tones.at(-1)!.onended = () => void context.close();
  }
}
