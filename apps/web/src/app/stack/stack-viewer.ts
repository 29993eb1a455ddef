import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  resource,
  signal,
  untracked,
} from '@angular/core';
import type { DeliveredSheet, PrintedFace, PrinterRecord } from '@foglio/api';
import { sayFinishing } from '@foglio/core';
import { firstValueFrom } from 'rxjs';
import { Api, sayError } from '../api/api';
import { trayColour, trayInk, trayMark } from '../bench/tray-mark';
import { PageImage } from '../pages/page-image';
import { faceWords, type FaceWords } from './face-words';
import { facesOf } from './faces';
import type { StackSource } from './stack-source';

const A4 = 210 / 297;

/** What came out of the printer, by the printer's own record: leafed through sheet by sheet, front and back. */
@Component({
  selector: 'fo-stack-viewer',
  imports: [PageImage, ScrollingModule],
  templateUrl: './stack-viewer.html',
  styleUrl: './stack-viewer.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'onKey($event)' },
})
export class StackViewer {
  readonly source = input.required<StackSource>();
  readonly printer = input.required<PrinterRecord | null>();
  private readonly api = inject(Api);
  /** Place in the stack, from 0. */
  protected readonly at = signal(0);
  /** Width over height of each side shown, as it is read; A4 until then. */
  protected readonly ratios = { front: signal(A4), back: signal(A4) };
  private readonly key = computed(() => this.source().key);

  /** What to ask for, and a word that changes when it is to be asked for again. */
  private readonly asked = computed(
    () => {
      const { of, key, news } = this.source();
      return of === null ? undefined : { of, key, news };
    },
    { equal: (one, other) => one?.of === other?.of && one?.key === other?.key && one?.news === other?.news },
  );

  /** Asked for again with every sheet that comes out; before the printer has the job there is nothing to ask. */
  protected readonly stack = resource({
    params: () => this.asked(),
    loader: async ({ params }) => {
      try {
        const stack = await firstValueFrom(this.api[params.of](params.key));
        return { sheets: stack.delivered, say: faceWords(stack), trouble: null };
      } catch (error) {
        return { sheets: [] as readonly DeliveredSheet[], say: null, trouble: sayError(error) };
      }
    },
  });

  /** The last answer is kept while the next one is on its way, so that nothing flickers. */
  private readonly kept = signal<readonly DeliveredSheet[]>([]);
  /** A printed face in words, by what was known last. */
  private readonly words = signal<FaceWords>(faceWords({}));
  protected readonly sheets = computed(() => this.stack.value()?.sheets ?? this.kept());
  protected readonly sheet = computed(() => this.sheets()[Math.min(this.at(), this.sheets().length - 1)] ?? null);
  protected readonly faces = computed(() => {
    const sheet = this.sheet();
    return sheet && facesOf(sheet);
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  constructor() {
    effect(() => {
      this.key();
      untracked(() => {
        this.at.set(0);
        this.kept.set([]);
        this.words.set(faceWords({}));
      });
    });
    effect(() => {
      const known = this.stack.value();
      if (!known) return;
      untracked(() => {
        this.kept.set(known.sheets);
        if (known.say) this.words.set(known.say);
      });
    });
  }

  protected place(sheet: DeliveredSheet): number {
    return this.printer()?.profile.trays.findIndex(({ id }) => id === sheet.tray) ?? -1;
  }

  protected trayName(sheet: DeliveredSheet): string {
    return this.printer()?.profile.trays.find(({ id }) => id === sheet.tray)?.name ?? sheet.tray;
  }

  /** Where it was stapled or punched, seen on its front with the paper upright. */
  protected finished({ finished }: DeliveredSheet): string {
    return finished ? ` · ${finished.finishings.map(sayFinishing).join(', ')} (paper upright)` : '';
  }

  protected say(sheet: DeliveredSheet): string {
    const { front, back } = facesOf(sheet);
    const faces = [
      front ? `front ${this.name(front)}` : 'front not printed',
      back ? `back ${this.name(back)}` : 'back not printed',
    ];
    return `Sheet ${sheet.index}, set ${sheet.set}, ${this.trayName(sheet)}, ${faces.join(', ')}${this.finished(sheet)}`;
  }

  /** "page 3", by the document's own pages where these are known. */
  protected name(face: PrintedFace): string {
    return this.words()(face);
  }

  protected go(by: number): void {
    const last = this.sheets().length - 1;
    this.at.set(Math.max(0, Math.min(last, this.at() + by)));
  }

  protected onKey(event: KeyboardEvent): void {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    this.go(step);
  }
}
