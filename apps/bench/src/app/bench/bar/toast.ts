import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Workbench } from '../../shared/documents/workbench';
import { Icon } from '../../shared/icons/icon';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';

/** The last thing the user should know, until it is closed. */
@Component({
  selector: 'brelvin-toast',
  imports: [Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'contents' },
  template: `
    @if (message(); as words) {
      <div class="toast" role="status">
        <span>{{ words }}</span>
        <button type="button" class="bar-button" (click)="message.set(undefined)" aria-label="Close the message">
          <brelvin-icon name="close" />
        </button>
      </div>
    }
  `,
})
export class Toast {
  protected readonly message = signal<string | undefined>(undefined);

  constructor() {
    const places = inject(BenchPlaces);
    inject(Workbench)
      .messages.pipe(takeUntilDestroyed())
      .subscribe((words) => this.message.set(words));
    // On the graph it stands where it happened.
    inject(GraphEditor)
      .refusals.pipe(takeUntilDestroyed())
      .subscribe((words) => {
        if (places.workspace() !== 'graph') this.message.set(words);
      });
  }
}
