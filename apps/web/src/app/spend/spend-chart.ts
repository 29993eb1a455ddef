import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, input, viewChild } from '@angular/core';
import type { Chart, ChartConfiguration } from 'chart.js';
import type { OverTime } from './chart-series';
import { hatchOf, SWATCHES } from './swatches';

const colourOf = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Columns over time, one part on the other; parts are told apart by their hatching too. */
@Component({
  selector: 'fo-spend-chart',
  template: `<canvas #canvas role="img" [attr.aria-label]="said()"></canvas>`,
  styles: `
    :host {
      display: block;
      position: relative;
      min-width: 0;
      min-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpendChart {
  readonly figures = input.required<OverTime>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  /** The table beside it holds each figure. */
  protected readonly said = computed(() => {
    const { series, periods, say } = this.figures();
    const sums = series.map(({ name, amounts }) => `${name} ${say(amounts.reduce((sum, one) => sum + one, 0))}`);
    return `From ${periods[0] ?? ''} to ${periods.at(-1) ?? ''}: ${sums.join(', ')}. “As a table” has the figures of each.`;
  });

  constructor() {
    effect((onCleanup) => {
      const figures = this.figures();
      const canvas = this.canvas().nativeElement;
      let chart: Chart | undefined;
      let gone = false;
      // The library is loaded when a chart is first looked at.
      void import('chart.js').then(({ Chart, BarController, BarElement, CategoryScale, LinearScale, Tooltip }) => {
        if (gone) return;
        Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);
        Chart.defaults.font.family = getComputedStyle(canvas).fontFamily;
        chart = new Chart(canvas, configuration(figures, canvas));
      });
      onCleanup(() => {
        gone = true;
        chart?.destroy();
      });
    });
  }
}

function configuration({ series, periods, unit, say }: OverTime, canvas: HTMLCanvasElement): ChartConfiguration<'bar'> {
  const [soft, line, card] = ['--soft', '--line', '--card'].map(colourOf) as [string, string, string];
  return {
    type: 'bar',
    data: {
      labels: [...periods],
      datasets: series.map(({ name, amounts }, at) => ({
        label: name,
        data: [...amounts],
        backgroundColor: hatchOf(canvas, SWATCHES[at % SWATCHES.length]!),
        borderColor: card,
        borderWidth: { top: 1 },
      })),
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      interaction: { mode: 'index', intersect: false },
      plugins: {
        tooltip: { callbacks: { label: ({ dataset, parsed }) => `${dataset.label}: ${say(parsed.y ?? 0)}` } },
      },
      scales: {
        x: { stacked: true, ticks: { color: soft, maxRotation: 0, font: { size: 12 } }, grid: { display: false } },
        y: {
          stacked: true,
          beginAtZero: true,
          title: { display: true, text: unit, color: soft, font: { size: 12 } },
          ticks: { color: soft, font: { size: 12 }, maxTicksLimit: 6 },
          grid: { color: line },
        },
      },
    },
  };
}
