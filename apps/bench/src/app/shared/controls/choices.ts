import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output } from '@angular/core';
import { nextByArrow } from './arrow-keys';

/** One of a few things to choose from. */
export interface Choice<T> {
  readonly value: T;
  /** The value itself when absent. */
  readonly words?: string;
  readonly help?: string;
}

/** A few words side by side, one of which holds; arrow keys go from one to the next. */
@Component({
  selector: 'brelvin-choices',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'choices', role: 'radiogroup', '[attr.aria-label]': 'label()', '(keydown)': 'key($event)' },
  template: `
    @for (option of options(); track option.value) {
      <button
        type="button"
        class="choice"
        role="radio"
        [attr.data-choice]="option.value"
        [attr.aria-checked]="option.value === value()"
        [tabindex]="option.value === value() || (!known() && $first) ? 0 : -1"
        [title]="option.help ?? ''"
        (click)="choose(option.value)"
      >
        {{ option.words ?? option.value }}
      </button>
    }
  `,
})
export class Choices<T extends string | number | boolean> {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Choice<T>[]>();
  readonly value = input.required<T>();
  readonly chosen = output<T>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected known(): boolean {
    return this.options().some((option) => option.value === this.value());
  }

  protected choose(value: T): void {
    if (value !== this.value()) this.chosen.emit(value);
  }

  protected key(event: KeyboardEvent): void {
    const now = this.options().findIndex((option) => option.value === this.value());
    const next = nextByArrow(event, now, this.host.nativeElement.querySelectorAll<HTMLElement>('[role="radio"]'));
    const option = next === undefined ? undefined : this.options()[next];
    if (option) this.choose(option.value);
  }
}

/** Choices that are called what they are. */
export function plainChoices<T extends string>(values: readonly T[]): readonly Choice<T>[] {
  return values.map((value) => ({ value }));
}
