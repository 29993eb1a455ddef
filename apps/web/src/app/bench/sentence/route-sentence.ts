import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';
import type { Route } from '@foglio/core';
import { routeParts, type RouteChange, type RouteNumber, type RoutePart, type Situation } from '@foglio/sentence';

/** Stands open in place of a part: the list of what else may be said. */
const ALSO = 'also';

/** What a route says of its pages beside tray and sides: a small sentence whose phrases are its controls. */
@Component({
  selector: 'fo-route-sentence',
  imports: [FormsModule, MatButton, MatFormField, MatInput, MatRadioButton, MatRadioGroup],
  templateUrl: './route-sentence.html',
  styleUrl: './route-sentence.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RouteSentence {
  readonly route = input.required<Route>();
  readonly situation = input.required<Situation>();
  /** Of the route, counted from 1: names its controls. */
  readonly number = input.required<number>();
  readonly changed = output<RouteChange>();
  /** Its part is to be drawn over a page. */
  readonly partWanted = output<void>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly ALSO = ALSO;
  /** The part that stands open, by name. */
  protected readonly open = signal<string | null>(null);
  private readonly parts = computed(() => routeParts(this.route(), this.situation()));
  protected readonly said = computed(() => this.parts().filter(({ said }) => said !== null));
  protected readonly offered = computed(() => this.parts().filter(({ said }) => said === null));
  protected readonly shown = computed(() => this.parts().find(({ name }) => name === this.open()) ?? null);

  protected takenOf({ choices }: RoutePart): number {
    return choices.findIndex(({ taken }) => taken);
  }

  protected toggle(name: string): void {
    this.open.set(this.open() === name ? null : name);
    this.focus(this.open() === null ? `[data-part="${name}"]` : '.panel input, .panel button');
  }

  /** Back to the phrase, or to "and also" where the part is not said any more. */
  protected close({ name }: RoutePart): void {
    this.open.set(null);
    this.focus(`[data-part="${name}"], [data-part="${ALSO}"]`);
  }

  protected likeRest(part: RoutePart): void {
    this.changed.emit(part.rest);
    this.close(part);
  }

  protected take(part: RoutePart, at: number): void {
    const choice = part.choices[at];
    if (choice) this.changed.emit(choice.change);
  }

  /** What cannot be is put back; the field says what it has. */
  protected takeNumber(field: RouteNumber, typed: HTMLInputElement): void {
    const value = Number(typed.value);
    if (typed.value !== '' && value >= field.least && value <= field.most) this.changed.emit(field.change(value));
    else typed.value = String(field.value);
  }

  private focus(selector: string): void {
    const find = (): HTMLElement | null => this.host.nativeElement.querySelector<HTMLElement>(selector);
    afterNextRender(() => find()?.focus(), { injector: this.injector });
  }
}
