import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { sayPages, SelectionError, selectPages, type DocumentFacts } from '@foglio/core';
import { examplesOf } from './page-examples';

/** The selection text with its read-back, and what is wrong with it under the very character. */
@Component({
  selector: 'fo-selection-field',
  imports: [MatButton],
  template: `
    <div class="box" [class.wrong]="reading().error">
      <div class="under" aria-hidden="true" [style.transform]="'translateX(' + -scrolled() + 'px)'">
        @if (reading().error; as error) {
          <span>{{ text().slice(0, error.position) }}</span><span class="at">{{
            text().slice(error.position, error.position + error.length) || ' '
          }}</span>
        }
      </div>
      <input
        #field
        id="selection"
        type="text"
        spellcheck="false"
        autocomplete="off"
        aria-label="Pages to print"
        aria-describedby="selection-says selection-examples"
        [attr.aria-invalid]="reading().error !== null"
        [value]="text()"
        (input)="textChange.emit(field.value)"
        (scroll)="scrolled.set(field.scrollLeft)"
      />
    </div>
    <div id="selection-says" class="says" role="status">
      @if (reading().error; as error) {
        <p class="error">{{ capital(error.message) }}. Expected: {{ error.expected }}.</p>
        @if (error.repair !== null) {
          <button mat-button type="button" class="inline" (click)="mend(error)">
            {{ error.repair === '' ? 'Take it out' : 'Write ' + error.repair + ' instead' }}
          </button>
        }
      } @else {
        <p>{{ reading().said }}</p>
      }
    </div>
    <!-- Always there, so that nothing moves while one writes. -->
    <p id="selection-examples" class="examples">
      @if (examples().length > 0) {
        such as
        @for (example of examples(); track example; let first = $first) {
          @if (!first) {
            ·
          }
          <span>{{ example }}</span>
        }
      }
    </p>
  `,
  styles: `
    .box {
      position: relative;
      overflow: hidden;
      border: 1px solid #8b8471;
      border-radius: var(--radius);
      background: #fff;
    }
    .box:focus-within {
      outline: 2px solid var(--accent);
      outline-offset: 1px;
    }
    .wrong {
      border-color: var(--stop);
    }
    input,
    .under {
      padding: 0 10px;
      font: 400 16px/36px var(--sans);
      white-space: pre;
    }
    input {
      position: relative;
      display: block;
      width: 100%;
      height: 36px;
      border: 0;
      outline: none;
      background: none;
      color: var(--ink);
    }
    .under {
      position: absolute;
      inset: 0;
      color: transparent;
    }
    .at {
      background: var(--stop-soft);
      box-shadow: inset 0 -3px 0 var(--stop);
    }
    .says {
      min-height: 20px;
      margin-top: 4px;
      font-size: 13px;
      color: var(--soft);
    }
    .examples {
      display: flex;
      gap: 6px;
      overflow: hidden;
      height: 20px;
      font-size: 13px;
      color: var(--soft);
      white-space: nowrap;
    }
    .examples span {
      flex: none;
      color: var(--ink);
    }
    .says p {
      overflow-wrap: anywhere;
    }
    .error {
      color: var(--stop);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SelectionField {
  readonly text = input.required<string>();
  readonly facts = input.required<DocumentFacts>();
  readonly rotate = input(0);
  readonly numbering = input<'position' | 'labels'>('position');
  readonly textChange = output<string>();
  protected readonly scrolled = signal(0);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  protected readonly examples = computed(() => examplesOf(this.facts()));

  protected readonly reading = computed(() => {
    const context = { facts: this.facts(), rotate: this.rotate(), numbering: this.numbering(), forgiving: false };
    try {
      return { said: this.readBack(selectPages(this.text(), context)), error: null };
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
      return { said: '', error };
    }
  });

  protected mend({ position, length, repair }: SelectionError): void {
    const text = this.text();
    this.textChange.emit(text.slice(0, position) + (repair ?? '') + text.slice(position + length));
    this.field().nativeElement.focus();
  }

  protected capital(message: string): string {
    return (message[0] ?? '').toUpperCase() + message.slice(1);
  }

  private readBack(pages: readonly number[]): string {
    const upwards = pages.every((page, index) => index === 0 || page > (pages[index - 1] as number));
    const said = sayPages(pages);
    if (said.length < 60) return upwards && pages.length > 1 ? `${said}, in order` : said;
    return `${pages.length} pages, ${upwards ? 'in order' : 'in an order of your own'}`;
  }
}
