import { Injectable, signal } from '@angular/core';
import type { PrinterRecord } from '@foglio/api';

/** What the bar along the top tells of the job that is on the Bench, or was last. */
@Injectable({ providedIn: 'root' })
export class OnBench {
  readonly job = signal<{ readonly id: string; readonly title: string } | null>(null);
  readonly printer = signal<PrinterRecord | null>(null);
}
