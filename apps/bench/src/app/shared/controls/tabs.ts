import { ChangeDetectionStrategy, Component, ElementRef, inject, input, model } from '@angular/core';
import { nextByArrow } from './arrow-keys';

export interface Tab<T extends string> {
  readonly value: T;
  /** The value itself when absent. */
  readonly words?: string;
  readonly help?: string;
}

/** Words of which one says what is shown below; arrow keys go from one to the next. */
@Component({
  selector: 'brelvin-tabs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'tabs', role: 'tablist', '[attr.aria-label]': 'label()', '(keydown)': 'key($event)' },
  template: `
    @for (tab of tabs(); track tab.value) {
      <button
        type="button"
        class="graph-tab"
        role="tab"
        [attr.data-tab]="tab.value"
        [attr.aria-selected]="tab.value === shown()"
        [tabindex]="tab.value === shown() ? 0 : -1"
        [title]="tab.help ?? ''"
        (click)="shown.set(tab.value)"
      >
        {{ tab.words ?? tab.value }}
      </button>
    }
  `,
})
export class Tabs<T extends string> {
  readonly label = input.required<string>();
  readonly tabs = input.required<readonly Tab<T>[]>();
  readonly shown = model.required<T>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected key(event: KeyboardEvent): void {
    const now = this.tabs().findIndex(({ value }) => value === this.shown());
    const next = nextByArrow(event, now, this.host.nativeElement.querySelectorAll<HTMLElement>('[role="tab"]'));
    const tab = next === undefined ? undefined : this.tabs()[next];
    if (tab) this.shown.set(tab.value);
  }
}
