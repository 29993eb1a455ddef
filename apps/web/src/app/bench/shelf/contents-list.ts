import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { headingRange, type DocumentFacts, type PageRange } from '@foglio/core';

interface Entry {
  readonly title: string;
  readonly level: number;
  /** Of a section: as it is written in a selection, "section 2". */
  readonly section: number | null;
  readonly range: PageRange;
  /** Of the heading's pages: all are printed, some, or none. */
  readonly printed: 'all' | 'some' | 'none';
}

const ICONS: Readonly<Record<Entry['printed'], string>> = {
  all: 'check_box',
  some: 'indeterminate_check_box',
  none: 'check_box_outline_blank',
};

/** The sections and headings of a document as a tree: their pages are chosen by name, and printed or not by a tick. */
@Component({
  selector: 'fo-contents-list',
  imports: [MatIcon, ScrollingModule],
  template: `
    <cdk-virtual-scroll-viewport itemSize="30">
      <div
        *cdkVirtualFor="let entry of entries()"
        class="entry"
        role="treeitem"
        [attr.aria-level]="entry.level"
        aria-selected="false"
        [style.padding-left.px]="(entry.level - 1) * 12"
      >
        <button
          type="button"
          class="tick"
          [attr.aria-label]="'Print “' + entry.title + '”'"
          [attr.aria-pressed]="entry.printed === 'all' ? 'true' : entry.printed === 'some' ? 'mixed' : 'false'"
          (click)="toggled.emit({ range: entry.range, print: entry.printed !== 'all' })"
        >
          <mat-icon aria-hidden="true">{{ icons[entry.printed] }}</mat-icon>
        </button>
        <button type="button" class="title" [title]="entry.title" (click)="chosen.emit(entry.range)">
          @if (entry.section !== null) {
            <span class="section"><span class="heard">section </span>{{ entry.section }}</span>
          }
          {{ entry.title }}
        </button>
        <span class="pages">{{ entry.range.from }}</span>
      </div>
    </cdk-virtual-scroll-viewport>
  `,
  styles: `
    :host,
    cdk-virtual-scroll-viewport {
      display: block;
      height: 100%;
    }
    .entry {
      display: flex;
      align-items: center;
      height: 30px;
      padding-right: 14px;
    }
    button {
      min-height: 26px;
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      font: 400 13px var(--sans);
      cursor: pointer;
    }
    .tick {
      flex: none;
      width: 26px;
      color: var(--soft);
    }
    .title {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .section {
      margin-right: 4px;
      color: var(--soft);
      font-variant-numeric: tabular-nums;
    }
    .title:hover {
      color: var(--accent);
      text-decoration: underline;
    }
    .pages {
      padding-left: 6px;
      color: var(--soft);
      font-size: 12px;
    }
    mat-icon {
      width: 16px;
      height: 16px;
      font-size: 16px;
      vertical-align: middle;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'tree', 'aria-label': 'Sections and headings' },
})
export class ContentsList {
  readonly facts = input.required<DocumentFacts>();
  readonly printed = input.required<ReadonlySet<number>>();
  readonly chosen = output<PageRange>();
  readonly toggled = output<{ readonly range: PageRange; readonly print: boolean }>();
  protected readonly icons = ICONS;

  protected readonly entries = computed<readonly Entry[]>(() => {
    let sections = 0;
    return (this.facts().outline ?? []).map((heading) => {
      const section = heading.level === 1 ? (sections += 1) : null;
      const range = headingRange(this.facts(), heading);
      let count = 0;
      for (let page = range.from; page <= range.to; page += 1) if (this.printed().has(page)) count += 1;
      const printed = count === 0 ? 'none' : count === range.to - range.from + 1 ? 'all' : 'some';
      return { title: heading.title, level: heading.level, section, range, printed };
    });
  });
}
