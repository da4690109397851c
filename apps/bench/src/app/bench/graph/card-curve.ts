import { ChangeDetectionStrategy, Component, computed, input, ViewEncapsulation } from '@angular/core';
import type { InletValue } from '@brelvin/contract';
import { nodeCurve, type NodeKind } from '@brelvin/core';
import { numberWords } from '../looking/value-words';

const WIDTH = 156;
const HEIGHT = 36;
const STEPS = 78;
const DASHES = ['', '4 2', '1 2'];

/** The course of a node's value, drawn from the numbers on its card. */
@Component({
  selector: 'brelvin-card-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './card-curve.css',
  host: { class: 'card-curve', '[title]': 'words()' },
  template: `
    <svg [attr.viewBox]="'0 0 ${WIDTH} ${HEIGHT}'" width="${WIDTH}" height="${HEIGHT}" role="img" [attr.aria-label]="words()">
      @if (drawn(); as curve) {
        <path class="curve-ground" [attr.d]="'M0 ' + curve.zero + 'H${WIDTH}'" />
        @for (line of curve.lines; track $index; let index = $index) {
          <path class="curve-line" [attr.d]="line" [attr.stroke-dasharray]="dashes[index]" [class.curve-open]="!complete()" />
        }
      }
    </svg>
  `,
})
export class CardCurve {
  readonly kind = input<NodeKind>();
  readonly values = input.required<Readonly<Record<string, InletValue>>>();
  /** Inlets without a ribbon: their numbers are known. */
  readonly open = input.required<readonly string[]>();

  protected readonly dashes = DASHES;
  private readonly curve = computed(() => {
    const kind = this.kind();
    return kind && nodeCurve(kind, this.values(), STEPS);
  });
  /** Whether all that shapes it stands on the card; where something runs in, its default is drawn. */
  protected readonly complete = computed(() => (this.kind()?.inlets.slice(1) ?? []).every((inlet) => this.open().includes(inlet.name)));

  protected readonly drawn = computed(() => {
    const curve = this.curve();
    if (!curve) return undefined;
    const all = curve.lines.flat().filter(Number.isFinite);
    const [low, high] = [Math.min(0, ...all), Math.max(1e-6, ...all)];
    const y = (value: number): number =>
      Math.round((HEIGHT - 2 - ((Math.min(Math.max(value, low), high) - low) / (high - low)) * (HEIGHT - 4)) * 10) / 10;
    const lines = curve.lines.map((line) =>
      line.map((value, index) => `${index ? 'L' : 'M'}${(index / STEPS) * WIDTH} ${y(value)}`).join(''),
    );
    return { lines, zero: y(0) };
  });

  protected readonly words = computed(() => {
    const curve = this.curve();
    if (!curve) return '';
    const over =
      this.kind()?.outlets[0]?.meaning === 'light'
        ? 'from turned away to facing the light'
        : `from ${numberWords(curve.low)} to ${numberWords(curve.high)}`;
    const all = curve.lines.flat();
    const range = `gives ${numberWords(Math.min(...all))} to ${numberWords(Math.max(...all))}`;
    return `Its course ${over}: ${range}${this.complete() ? '' : ', with defaults where something runs in'}`;
  });
}
