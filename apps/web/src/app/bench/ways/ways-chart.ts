import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, input, viewChild } from '@angular/core';
import type { Chart, ChartConfiguration, Plugin } from 'chart.js';

/** A way on the chart. */
export interface ChartPoint {
  readonly name: string;
  readonly sheets: number;
  readonly smallestTextPt: number;
  /** The way the job is set up now. */
  readonly now: boolean;
}

const colourOf = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

const fontOf = (canvas: HTMLCanvasElement): string => getComputedStyle(canvas).fontFamily;

/** Names at the points, since a legend would have to be looked up: each where it covers no other name. */
const names: Plugin<'scatter'> = {
  id: 'names',
  afterDatasetsDraw(chart) {
    const { ctx, chartArea, data, canvas } = chart;
    ctx.font = `12px ${fontOf(canvas)}`;
    ctx.fillStyle = colourOf('--ink');
    ctx.textAlign = 'left';
    const points = chart.getDatasetMeta(0).data;
    // No name lies on a point either.
    const taken = points.map(({ x, y }) => ({ left: x - 7, right: x + 7, y: y + 4 }));
    points.forEach((point, index) => {
      const name = (data.labels?.[index] as string | undefined) ?? '';
      const { width } = ctx.measureText(name);
      const places = [
        { left: point.x + 10, y: point.y + 4 },
        { left: point.x - 10 - width, y: point.y + 4 },
        { left: Math.max(chartArea.left, point.x - width), y: point.y + 20 },
        { left: Math.max(chartArea.left, point.x - width), y: point.y - 12 },
      ].map((place) => ({ ...place, right: place.left + width }));
      const free = places.find(
        (place) =>
          place.left >= chartArea.left &&
          place.right <= chartArea.right &&
          !taken.some((one) => Math.abs(one.y - place.y) < 14 && one.left < place.right && one.right > place.left),
      );
      const place = free ?? places[0]!;
      taken.push(place);
      ctx.fillText(name, place.left, place.y);
    });
  },
};

/** Under this line the text is smaller than is asked for. */
const lineAt = (limit: number, colour: string): Plugin<'scatter'> => ({
  id: 'limit',
  beforeDatasetsDraw({ ctx, chartArea: { left, right }, scales }) {
    const y = scales['y']!.getPixelForValue(limit);
    ctx.strokeStyle = colour;
    ctx.lineWidth = 1.5;
    ctx.beginPath();
    ctx.moveTo(left, y);
    ctx.lineTo(right, y);
    ctx.stroke();
  },
});

/** Sheets against the smallest text: fewer sheets lie to the left, easier reading above. */
@Component({
  selector: 'fo-ways-chart',
  template: `<canvas #canvas role="img" [attr.aria-label]="said()"></canvas>`,
  styles: `
    :host {
      display: block;
      position: relative;
      min-width: 0;
      height: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WaysChart {
  readonly points = input.required<readonly ChartPoint[]>();
  /** The smallest text that is asked for, in points: where the chart has its line. */
  readonly limit = input.required<number>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  protected readonly said = computed(
    () =>
      `Sheets against smallest text, with a line at ${this.limit()} pt: ` +
      this.points()
        .map(({ name, sheets, smallestTextPt }) => `${name}, ${sheets} sheets, ${smallestTextPt.toFixed(1)} pt`)
        .join('; '),
  );

  constructor() {
    effect((onCleanup) => {
      const points = atOnePlace(this.points());
      const limit = this.limit();
      const canvas = this.canvas().nativeElement;
      let chart: Chart | undefined;
      let gone = false;
      // The library is loaded when a chart is first looked at.
      void import('chart.js').then(({ Chart, LinearScale, PointElement, ScatterController }) => {
        if (gone) return;
        Chart.register(LinearScale, PointElement, ScatterController);
        Chart.defaults.font.family = fontOf(canvas);
        chart = new Chart(canvas, configuration(points, limit));
      });
      onCleanup(() => {
        gone = true;
        chart?.destroy();
      });
    });
  }
}

/** Ways that come to the same share a point, and its name. */
function atOnePlace(points: readonly ChartPoint[]): ChartPoint[] {
  const byPlace = new Map<string, ChartPoint>();
  for (const point of points) {
    const key = `${point.sheets} ${point.smallestTextPt.toFixed(1)}`;
    const there = byPlace.get(key);
    byPlace.set(key, there ? { ...there, name: `${there.name}, ${point.name}`, now: there.now || point.now } : point);
  }
  return [...byPlace.values()].sort((a, b) => a.sheets - b.sheets);
}

function configuration(points: readonly ChartPoint[], limit: number): ChartConfiguration<'scatter'> {
  const [ink, soft, accent, line] = ['--ink', '--soft', '--accent', '--line'].map(colourOf) as [
    string,
    string,
    string,
    string,
  ];
  const largest = Math.max(limit, ...points.map(({ smallestTextPt }) => smallestTextPt));
  const most = Math.max(1, ...points.map(({ sheets }) => sheets));
  const title = (text: string) => ({ display: true, text, color: soft, font: { size: 12 } });
  return {
    type: 'scatter',
    data: {
      labels: points.map(({ name }) => name),
      datasets: [
        {
          data: points.map(({ sheets, smallestTextPt }) => ({ x: sheets, y: smallestTextPt })),
          pointRadius: points.map(({ now }) => (now ? 6 : 4)),
          pointBackgroundColor: points.map(({ now }) => (now ? accent : ink)),
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      events: [],
      scales: {
        x: {
          beginAtZero: true,
          suggestedMax: most * 1.1,
          title: title('sheets'),
          ticks: { precision: 0, color: soft },
          grid: { color: line },
        },
        y: {
          beginAtZero: true,
          suggestedMax: largest * 1.15,
          title: title('smallest text, pt'),
          ticks: { color: soft },
          grid: { color: line },
        },
      },
    },
    plugins: [lineAt(limit, accent), names],
  };
}
