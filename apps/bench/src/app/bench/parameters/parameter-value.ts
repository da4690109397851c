import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { InletValue, MaterialParameter } from '@brelvin/core';
import { Choices } from '../../shared/controls/choices';
import { ColourField } from '../../shared/controls/colour-field';
import { GradientField } from '../../shared/controls/gradient-field';
import { NumberField } from '../../shared/controls/number-field';

export interface ValueChange {
  readonly value: InletValue;
  readonly gesture?: string;
}

/** The control of a parameter's value, by its type: of the material's own value, or of one that a part has. Images have another. */
@Component({
  selector: 'brelvin-parameter-value',
  imports: [Choices, ColourField, GradientField, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: ':host { display: contents; }',
  template: `
    @switch (parameter().type) {
      @case ('colour') {
        <brelvin-colour [label]="parameter().name" [value]="colour()" (changed)="changed.emit($event)" />
      }
      @case ('vector') {
        <span class="parameter-vector">
          @for (part of list(); track $index) {
            <brelvin-number
              [label]="parameter().name + ' ' + 'xyzw'[$index]"
              [value]="part"
              (changed)="setComponent($index, $event.value, $event.gesture)"
              (resetAsked)="resetAsked.emit()"
            />
          }
        </span>
      }
      @case ('choice') {
        <brelvin-choices [label]="parameter().name" [options]="choices()" [value]="number()" (chosen)="changed.emit({ value: $event })" />
      }
      @case ('switch') {
        <button
          type="button"
          class="choice-alone"
          [attr.aria-label]="parameter().name"
          [attr.aria-pressed]="number() > 0.5"
          (click)="changed.emit({ value: number() > 0.5 ? 0 : 1 })"
        >
          {{ number() > 0.5 ? 'on' : 'off' }}
        </button>
      }
      @case ('stops') {
        <brelvin-gradient [label]="parameter().name" [value]="list()" (changed)="changed.emit($event)" />
      }
      @default {
        <brelvin-number
          [label]="parameter().name"
          [value]="number()"
          [range]="{ low: parameter().low, high: parameter().high, whole: parameter().type === 'count' }"
          (changed)="changed.emit({ value: whole($event.value), gesture: $event.gesture })"
          (resetAsked)="resetAsked.emit()"
        />
      }
    }
  `,
})
export class ParameterValue {
  readonly parameter = input.required<MaterialParameter>();
  /** The parameter's own where absent. */
  readonly given = input<InletValue>();
  readonly changed = output<ValueChange>();
  readonly resetAsked = output<void>();

  private readonly value = computed(() => this.given() ?? this.parameter().value);
  protected readonly number = computed(() => {
    const value = this.value();
    return typeof value === 'number' ? value : (value[0] ?? 0);
  });
  /** As many numbers as the parameter has; one number stands for each. */
  protected readonly list = computed((): readonly number[] => {
    const [value, own] = [this.value(), this.parameter().value];
    if (typeof value !== 'number') return value;
    return typeof own === 'number' ? [value] : own.map(() => value);
  });
  protected readonly colour = computed((): readonly number[] => {
    const value = this.value();
    return typeof value === 'number' ? [value, value, value] : value;
  });
  protected readonly choices = computed(() => (this.parameter().choices ?? []).map((words, value) => ({ value, words })));

  protected whole(value: number): number {
    return this.parameter().type === 'count' ? Math.round(value) : value;
  }

  protected setComponent(index: number, value: number, gesture?: string): void {
    this.changed.emit({ value: this.list().map((each, at) => (at === index ? value : each)), gesture });
  }
}
