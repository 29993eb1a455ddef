import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { BrowserNotices } from './browser-notices';

/** Where a person says whether the browser tells them what becomes of what was sent. */
@Component({
  selector: 'fo-browser-notices-switch',
  template: `
    <label>
      <input type="checkbox" [checked]="notices.isOn()" (change)="switch($any($event.target))" />
      Notices by the browser
    </label>
    <p>Ready, failed or in need of you: told also while another window is in front.</p>
    @if (notices.refused(); as said) {
      <p class="refused" role="alert">{{ said }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 16px;
      padding: 0 12px;
    }
    label {
      display: flex;
      align-items: center;
      gap: 8px;
      font-weight: 600;
    }
    p {
      margin-top: 4px;
      color: var(--soft);
      font-size: 13px;
    }
    .refused {
      color: var(--stop);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BrowserNoticesSwitch {
  protected readonly notices = inject(BrowserNotices);

  /** What was refused is not shown as chosen. */
  protected async switch(box: HTMLInputElement): Promise<void> {
    await this.notices.switch();
    box.checked = this.notices.isOn();
  }
}
