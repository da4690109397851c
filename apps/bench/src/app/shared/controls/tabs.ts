import { ChangeDetectionStrategy, Component, ElementRef, inject, input, model } from '@angular/core';

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
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const tabs = this.tabs();
    const next = (tabs.findIndex(({ value }) => value === this.shown()) + step + tabs.length) % tabs.length;
    const tab = tabs[next];
    if (tab) this.shown.set(tab.value);
    this.host.nativeElement.querySelectorAll<HTMLElement>('[role="tab"]')[next]?.focus();
  }
}
