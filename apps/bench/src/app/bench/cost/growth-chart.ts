import { ChangeDetectionStrategy, Component, effect, ElementRef, inject, input, viewChild, type OnDestroy } from '@angular/core';
import { CategoryScale, Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { Themes } from '../../shared/themes/themes';
import { counted, msWords } from './cost-words';
import { GROWTHS, type GrowthOf } from './frame-times';
import type { Growth, GrowthPoint } from './measured-costs';

Chart.register(CategoryScale, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip);

interface ChartPoint extends GrowthPoint {
  readonly x: number;
  readonly y: number;
}

/** Three lines: how many times as long the picture takes with so many times as many pixels, copies and lights as at first. */
@Component({
  selector: 'brelvin-growth-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'growth-chart' },
  template: `<canvas #canvas role="img" [attr.aria-label]="words()"></canvas>`,
})
export class GrowthChart implements OnDestroy {
  readonly growth = input.required<Growth>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly themes = inject(Themes);
  private chart?: Chart<'line', ChartPoint[]>;

  constructor() {
    effect(() => {
      const growth = this.growth();
      // Colours come from the theme.
      this.themes.current();
      this.draw(growth);
    });
  }

  protected words(): string {
    return GROWTHS.map(
      (of) =>
        `${of}: ${this.growth()
          [of].map(({ count, milliseconds }) => `${counted(count)}, ${msWords(milliseconds)}`)
          .join('; ')}`,
    ).join('. ');
  }

  private draw(growth: Growth): void {
    const element = this.canvas().nativeElement;
    const ink = (name: string): string => getComputedStyle(element).getPropertyValue(name).trim();
    const datasets = GROWTHS.map((of) => ({
      label: of,
      data: growth[of].map(({ count, milliseconds }) => ({
        x: count / (growth[of][0]?.count ?? 1),
        y: milliseconds / Math.max(growth[of][0]?.milliseconds ?? 1, 1e-3),
        count,
        milliseconds,
      })),
      borderColor: ink('--text'),
      backgroundColor: ink('--text'),
      borderDash: LINES[of].dash,
      borderWidth: 1.5,
      pointRadius: 2.5,
      pointStyle: LINES[of].point,
    }));
    const [text, line] = [ink('--dim'), ink('--line')];
    const font = { family: 'system-ui, sans-serif', size: 11 };
    const scale = (title: string) => ({
      type: 'linear' as const,
      beginAtZero: true,
      ticks: { color: text, font, maxTicksLimit: 6 },
      grid: { color: line },
      title: { display: true, text: title, color: text, font },
    });
    this.chart?.destroy();
    this.chart = new Chart(element, {
      type: 'line',
      data: { datasets },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        scales: { x: scale('times as many as at first'), y: scale('times as long') },
        plugins: {
          legend: { position: 'right', labels: { color: text, font, usePointStyle: true, boxHeight: 6 } },
          tooltip: {
            callbacks: {
              title: () => '',
              label: ({ dataset, raw }) => pointWords(dataset.label ?? '', raw as ChartPoint),
            },
          },
        },
      },
    });
  }

  ngOnDestroy(): void {
    this.chart?.destroy();
  }
}

function pointWords(label: string, { count, milliseconds }: GrowthPoint): string {
  return `${counted(count)} ${label}: ${msWords(milliseconds)}`;
}

/** Told apart by their strokes and points as well. */
const LINES: Readonly<Record<GrowthOf, { readonly dash: number[]; readonly point: 'rect' | 'triangle' | 'circle' }>> = {
  pixels: { dash: [], point: 'rect' },
  copies: { dash: [6, 3], point: 'triangle' },
  lights: { dash: [2, 3], point: 'circle' },
};
