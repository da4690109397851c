import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { hexFromLinear, scaleColours, type LensMode } from '@brelvin/core';
import { Choices, type Choice } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { LensBinding } from './lens-binding';
import { OutletInspector } from './outlet-inspector';
import { numberWords } from './value-words';

const MODES: readonly Choice<LensMode>[] = [
  { value: 'colour', help: 'Its numbers as red, green and blue' },
  { value: 'scale', help: 'One of its numbers on a scale of colours; hatched beyond its ends' },
  { value: 'direction', help: 'A direction: right is red, up is green, towards you is blue' },
];
const PARTS = ['x', 'y', 'z', 'w', 'length'];
const TICKS = 5;

/** What is seen on the mesh instead of the picture, what its colours mean, and between which values. */
@Component({
  selector: 'brelvin-peek-bar',
  imports: [Choices, Icon, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './peek-bar.css',
  host: { class: 'compare-bar peek-bar', role: 'group', 'aria-label': 'Peek' },
  template: `
    @if (outlets.peek(); as peek) {
      <span class="compare-row">
        <strong class="peek-title" [title]="peek.title">{{ peek.title }}</strong>
        <brelvin-choices
          label="How the value is seen"
          [options]="modes"
          [value]="peek.mode"
          (chosen)="outlets.changePeek({ mode: $event })"
        />
        <span class="flex-1"></span>
        <button type="button" class="text-button" title="The picture again (F6)" aria-label="Stop peeking" (click)="outlets.stopPeek()">
          <brelvin-icon name="close" />
        </button>
      </span>
      @switch (peek.mode) {
        @case ('scale') {
          <span class="compare-row">
            <brelvin-number
              label="Lowest of the scale"
              [value]="round(peek.low)"
              (changed)="outlets.changePeek({ low: $event.value, held: true })"
              (resetAsked)="spanSeen()"
            />
            <span class="peek-scale" [style.background-image]="scale()" aria-hidden="true"></span>
            <brelvin-number
              label="Highest of the scale"
              [value]="round(peek.high)"
              (changed)="outlets.changePeek({ high: $event.value, held: true })"
              (resetAsked)="spanSeen()"
            />
            <button type="button" class="text-button" title="Fit the scale to the values that are seen" (click)="spanSeen()">fit</button>
          </span>
          <span class="compare-row peek-ticks" role="status">
            @if (parts(); as choices) {
              <brelvin-choices label="Which number" [options]="choices" [value]="peek.component" (chosen)="choosePart($event)" />
            }
            <span class="peek-numbers">
              @for (tick of ticks(); track $index) {
                <span>{{ tick }}</span>
              }
            </span>
          </span>
        }
        @case ('direction') {
          <span class="compare-row compare-numbers">Directions: right red, up green, front blue; grey in the middle.</span>
        }
        @default {
          <span class="compare-row compare-numbers">As a colour: 0 is black, 1 is full; beyond both it is held.</span>
        }
      }
    }
  `,
})
export class PeekBar {
  protected readonly outlets = inject(OutletInspector);
  private readonly binding = inject(LensBinding);
  protected readonly modes = MODES;

  protected readonly scale = computed(() => {
    const stops = scaleColours(12).map((colour) => hexFromLinear(colour));
    return `linear-gradient(to right, ${stops.join(', ')})`;
  });
  protected readonly ticks = computed(() => {
    const { low = 0, high = 1 } = this.outlets.peek() ?? {};
    return Array.from({ length: TICKS }, (_, index) => numberWords(low + ((high - low) * index) / (TICKS - 1)));
  });
  protected readonly parts = computed((): readonly Choice<number>[] | undefined => {
    const type = this.outlets.peek()?.type;
    const count = type === 'number' ? 0 : type === 'vec2' ? 2 : type === 'vec4' ? 4 : 3;
    return count === 0 ? undefined : [...PARTS.slice(0, count), 'length'].map((words) => ({ value: PARTS.indexOf(words), words }));
  });

  protected round(value: number): number {
    return Number(value.toPrecision(4));
  }

  protected spanSeen(): void {
    void this.binding.spanSeen();
  }

  protected choosePart(component: number): void {
    this.outlets.changePeek({ component });
    this.spanSeen();
  }
}
