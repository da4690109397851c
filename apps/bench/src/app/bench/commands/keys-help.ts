import { CdkTrapFocus } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, inject, output, ViewEncapsulation } from '@angular/core';
import { BenchCommands } from './bench-commands';

/** All keys of the Bench. */
@Component({
  selector: 'brelvin-keys-help',
  imports: [CdkTrapFocus],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './keys-help.css',
  template: `
    <div
      class="popover keys-help"
      role="dialog"
      aria-label="Keys"
      cdkTrapFocus
      [cdkTrapFocusAutoCapture]="true"
      (keydown.escape)="closed.emit()"
    >
      <dl>
        @for (key of keys; track $index) {
          <div class="key-row">
            <dt>
              <kbd>{{ key.keys }}</kbd>
            </dt>
            <dd>{{ key.help }}</dd>
          </div>
        }
      </dl>
      <button type="button" class="bar-button" (click)="closed.emit()">Close</button>
    </div>
  `,
})
export class KeysHelp {
  readonly closed = output<void>();
  protected readonly keys = inject(BenchCommands).keys;
}
