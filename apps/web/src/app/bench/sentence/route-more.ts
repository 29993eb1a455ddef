import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { allLike, type Route, type Ticket } from '@foglio/core';
import { type Aspect, holds, type NumberField, PAGE_ASPECTS, type Situation } from '@foglio/sentence';

/** The parts of a route beside tray and sides, each of which an aspect of the sentence knows how to change. */
type OwnPart = Exclude<keyof Route & keyof Ticket, 'tray' | 'sides'>;
const PARTS = [...new Set(PAGE_ASPECTS.flatMap(({ fields }) => fields.map((field) => field.split('.')[0] as OwnPart)))];

/** The further settings of a route: the same choices as the sentence has for the whole job. */
@Component({
  selector: 'fo-route-more',
  imports: [MatButton, MatFormField, MatInput],
  template: `
    <div class="parts">
      @for (part of chosen(); track part.aspect.name) {
        @if (part.choices.length > 0) {
          <label>
            {{ part.aspect.title }}
            <mat-form-field
              ><select matNativeControl (change)="takeChoice(part, +$any($event.target).value)">
                <option value="-1" [selected]="part.at < 0">{{ part.like }}</option>
                @for (choice of part.choices; track choice.label) {
                  <option [value]="$index" [selected]="$index === part.at">{{ choice.label }}</option>
                }
              </select></mat-form-field
            >
          </label>
        }
        @for (field of part.numbers; track field.label) {
          <label>
            {{ labelOf(part, field) }}
            <mat-form-field
              ><input
                matInput
                type="number"
                [min]="field.least"
                [max]="field.most"
                [step]="field.step"
                [value]="field.value"
                (change)="takeNumber(field, $any($event.target))"
            /></mat-form-field>
          </label>
        }
      }
      <label>
        Turned
        <mat-form-field
          ><select matNativeControl (change)="turn($any($event.target).value)">
            <option value="" [selected]="route().rotate === undefined">like its document</option>
            @for (degrees of [0, 90, 180, 270]; track degrees) {
              <option [value]="degrees" [selected]="route().rotate === degrees">{{ degrees }}° clockwise</option>
            }
          </select></mat-form-field
        >
      </label>
      <label class="tick">
        <input type="checkbox" [checked]="route().ownSheet ?? false" (change)="setApart($any($event.target).checked)" />
        Each of these pages on a sheet of its own
      </label>
      <label>
        Name
        <mat-form-field
          ><input
            matInput
            type="text"
            maxlength="255"
            [value]="route().name ?? ''"
            (change)="changed.emit({ name: $any($event.target).value || undefined })"
        /></mat-form-field>
      </label>
    </div>
    @if (ownParts().length > 0) {
      <button mat-button type="button" class="inline" (click)="reset()">
        Everything but tray and sides like the rest
      </button>
    }
  `,
  styles: `
    :host {
      display: block;
      margin: 6px 0 8px 64px;
      padding: 12px;
      border-radius: var(--radius);
      background: var(--shelf);
    }
    .parts {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 10px 16px;
      align-items: end;
    }
    label {
      color: var(--soft);
      font-size: 12px;
    }
    .tick {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 34px;
    }
    .tick input {
      width: 20px;
      height: 20px;
    }
    .inline {
      margin-top: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RouteMore {
  readonly route = input.required<Route>();
  readonly situation = input.required<Situation>();
  readonly changed = output<Partial<Route>>();

  /** The job as it would be were all of it printed like these pages. */
  private readonly alone = computed<Situation>(() => {
    const { ticket } = this.situation();
    return {
      ...this.situation(),
      ticket: { ...allLike(ticket, this.route()), tray: ticket.tray, sides: ticket.sides },
    };
  });

  protected readonly ownParts = computed(() => PARTS.filter((part) => this.route()[part] !== undefined));

  /** What can be chosen: all that means something here. */
  protected readonly chosen = computed(() => {
    const alone = this.alone();
    return PAGE_ASPECTS.filter(({ fits }) => fits?.(alone) ?? true).map((aspect) => {
      const choices = aspect.choices?.(alone) ?? [];
      const own = this.isOwn(aspect);
      return {
        aspect,
        choices,
        numbers: aspect.name === 'paper' ? [] : (aspect.numbers?.(alone) ?? []),
        at: own ? choices.findIndex(({ patch }) => holds(alone.ticket, patch)) : -1,
        like: own ? 'something else' : 'like the rest',
      };
    });
  });

  /** A number alone is called by what it is about; of several, or beside choices, each has its own name. */
  protected labelOf({ aspect, choices, numbers }: ReturnType<typeof this.chosen>[number], field: NumberField): string {
    const name = choices.length > 0 || numbers.length > 1 ? field.label : aspect.title;
    return field.unit === '' ? name : `${name} (${field.unit})`;
  }

  /** Whether the route differs from the job in what an aspect says. */
  private isOwn(aspect: Aspect): boolean {
    return aspect.say(this.alone()) !== aspect.say(this.situation());
  }

  protected takeChoice({ aspect, choices }: ReturnType<typeof this.chosen>[number], at: number): void {
    const choice = choices[at];
    if (choice) return this.take(choice.patch);
    // Like the rest: the choice that the job has taken; the others of the route stay.
    const { ticket } = this.situation();
    const taken = aspect.choices?.(this.situation()).find(({ patch }) => holds(ticket, patch));
    const there = choices.find(({ label }) => label === taken?.label);
    if (there) this.take(there.patch);
  }

  protected takeNumber(field: NumberField, typed: HTMLInputElement): void {
    const value = Number(typed.value);
    if (typed.value !== '' && value >= field.least && value <= field.most) this.take(field.patch(value));
  }

  /** A part that is the job's again is no part of the route. */
  private take(patch: Partial<Ticket>): void {
    const change: Partial<Route> = {};
    for (const part of PARTS) {
      if (patch[part] === undefined) continue;
      const same = holds(this.situation().ticket, { [part]: patch[part] });
      Object.assign(change, { [part]: same ? undefined : patch[part] });
    }
    this.changed.emit(change);
  }

  protected turn(value: string): void {
    this.changed.emit({ rotate: value === '' ? undefined : (Number(value) as Route['rotate']) });
  }

  protected setApart(apart: boolean): void {
    this.changed.emit({ ownSheet: apart || undefined });
  }

  protected reset(): void {
    this.changed.emit(Object.fromEntries(PARTS.map((part) => [part, undefined])));
  }
}
