import { Injectable, signal } from '@angular/core';

/** What the bar along the top tells of the job that is on the Bench, or was last. */
@Injectable({ providedIn: 'root' })
export class OnBench {
  readonly job = signal<{ readonly id: string; readonly title: string } | null>(null);
  /** The id of the printer it is for. */
  readonly printer = signal<string | null>(null);
}
