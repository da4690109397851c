import { ChangeDetectionStrategy, Component, computed, input, output, ViewEncapsulation } from '@angular/core';
import type { InletValue } from '@brelvin/contract';
import { iorOfReflectivity, reflectivityOfIor } from '@brelvin/core';
import { Choices } from '../../shared/controls/choices';
import { ColourField } from '../../shared/controls/colour-field';
import { GradientField } from '../../shared/controls/gradient-field';
import { NumberField } from '../../shared/controls/number-field';
import { ImageField } from '../images/image-field';
import type { ValueChange, ValueSpec } from './value-spec';

/** The control of a value of any type: of an inlet, a parameter, a part, a light. */
@Component({
  selector: 'brelvin-value',
  imports: [Choices, ColourField, GradientField, ImageField, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './value-control.css',
  host: { class: 'contents' },
  template: `
    @switch (spec().kind) {
      @case ('colour') {
        <brelvin-colour [class.card-control]="narrow()" [label]="spec().label" [value]="colour()" (changed)="changed.emit($event)" />
      }
      @case ('vector') {
        <span [class]="narrow() ? 'card-control card-vector' : 'parameter-vector'">
          @for (part of list(); track $index) {
            <brelvin-number
              [label]="spec().label + ' ' + 'xyzw'[$index]"
              [value]="part"
              (changed)="setComponent($index, $event.value, $event.gesture)"
              (resetAsked)="resetAsked.emit()"
            />
          }
        </span>
      }
      @case ('ior') {
        <span class="card-control card-vector">
          <brelvin-number
            [label]="spec().label"
            [help]="spec().help ?? ''"
            [value]="number()"
            [range]="spec().range ?? {}"
            (changed)="changed.emit($event)"
            (resetAsked)="resetAsked.emit()"
          />
          <brelvin-number
            label="Reflectivity"
            help="How much it mirrors head on, in percent: linked with the index of refraction, whichever is typed."
            suffix="%"
            [value]="reflectivity()"
            [range]="{ low: 0, high: 20 }"
            (changed)="setReflectivity($event.value, $event.gesture)"
            (resetAsked)="resetAsked.emit()"
          />
        </span>
      }
      @case ('choice') {
        @if (narrow()) {
          <select
            #choice
            class="text-input card-control card-choice"
            [attr.aria-label]="spec().label"
            (pointerdown)="$event.stopPropagation()"
            (keydown)="$event.stopPropagation()"
            (change)="changed.emit({ value: +choice.value })"
          >
            @for (entry of choices(); track entry.value) {
              <option [value]="entry.value" [selected]="entry.value === rounded()">{{ entry.words }}</option>
            }
          </select>
        } @else {
          <brelvin-choices [label]="spec().label" [options]="choices()" [value]="number()" (chosen)="changed.emit({ value: $event })" />
        }
      }
      @case ('switch') {
        <button
          type="button"
          class="choice-alone"
          [attr.aria-label]="spec().label"
          [attr.aria-pressed]="number() > 0.5"
          (click)="changed.emit({ value: number() > 0.5 ? 0 : 1 })"
        >
          {{ number() > 0.5 ? 'on' : 'off' }}
        </button>
      }
      @case ('stops') {
        <brelvin-gradient [class.card-control]="narrow()" [label]="spec().label" [value]="list()" (changed)="changed.emit($event)" />
      }
      @case ('image') {
        @if (spec().user; as user) {
          <brelvin-image-field
            [class.card-control]="narrow()"
            [user]="user"
            [image]="image()"
            [cube]="spec().cube"
            (chosen)="imageChosen.emit($event)"
          />
        }
      }
      @default {
        <brelvin-number
          [class.card-control]="narrow()"
          [label]="spec().label"
          [help]="spec().help ?? ''"
          [value]="number()"
          [range]="spec().range ?? {}"
          [suffix]="spec().suffix ?? ''"
          (changed)="changed.emit({ value: whole($event.value), gesture: $event.gesture })"
          (resetAsked)="resetAsked.emit()"
        />
      }
    }
  `,
})
export class ValueControl {
  readonly spec = input.required<ValueSpec>();
  readonly value = input<InletValue>(0);
  /** Of what is an image: which one, by its id in the material. */
  readonly image = input<string>();
  /** On a card there is little room. */
  readonly narrow = input(false);
  readonly changed = output<ValueChange>();
  readonly imageChosen = output<string>();
  readonly resetAsked = output<void>();

  protected readonly list = computed((): readonly number[] => {
    const value = this.value();
    return typeof value === 'number' ? [value] : value;
  });
  protected readonly number = computed(() => this.list()[0] ?? 0);
  protected readonly rounded = computed(() => Math.round(this.number()));
  protected readonly colour = computed((): readonly number[] => {
    const value = this.value();
    return typeof value === 'number' ? [value, value, value] : value;
  });
  protected readonly choices = computed(() => (this.spec().choices ?? []).map((words, value) => ({ value, words })));
  /** Percent. */
  protected readonly reflectivity = computed(() => Math.round(reflectivityOfIor(this.number()) * 1e4) / 100);

  protected whole(value: number): number {
    return this.spec().range?.whole ? Math.round(value) : value;
  }

  protected setReflectivity(percent: number, gesture?: string): void {
    this.changed.emit({ value: Math.round(iorOfReflectivity(percent / 100) * 1e4) / 1e4, gesture });
  }

  protected setComponent(index: number, value: number, gesture?: string): void {
    this.changed.emit({ value: this.list().map((each, at) => (at === index ? value : each)), gesture });
  }
}
