import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  EnvironmentInjector,
  inject,
  input,
  signal,
  untracked,
  type Type,
} from '@angular/core';
import type { benchStore, queueStore } from './own-store';

/** A screen over a store of its own; the route says which. */
@Component({
  selector: 'fo-own-screen',
  imports: [NgComponentOutlet],
  template: `
    @if (own(); as injector) {
      <ng-container *ngComponentOutlet="screen(); environmentInjector: injector; inputs: inputs()" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OwnScreen {
  readonly screen = input.required<Type<unknown>>();
  readonly store = input.required<typeof benchStore | typeof queueStore>();
  readonly id = input<string>();
  /** Whether another id has another store: nothing of one is known to the other. */
  readonly perId = input(false);
  private readonly parent = inject(EnvironmentInjector);
  private readonly key = computed(() => (this.perId() ? this.id() : null));
  protected readonly own = signal<EnvironmentInjector | null>(null);
  protected readonly inputs = computed(() => ({ id: this.id() }));

  constructor() {
    effect(() => {
      const store = this.store();
      this.key();
      untracked(() => {
        this.own()?.destroy();
        this.own.set(store(this.parent));
      });
    });
    inject(DestroyRef).onDestroy(() => this.own()?.destroy());
  }
}
