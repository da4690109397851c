import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { Icon } from '../../shared/icons/icon';

/** Opens a function of the Library beside what is written, or begins one. */
@Component({
  selector: 'brelvin-function-menu',
  imports: [CdkMenu, CdkMenuItem, CdkMenuTrigger, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="bar-button"
      [cdkMenuTriggerFor]="menu"
      #trigger="cdkMenuTriggerFor"
      (keydown.escape)="trigger.close()"
      title="Functions of the Library: read, write, begin one"
    >
      functions <brelvin-icon name="down" />
    </button>
    <ng-template #menu>
      <div class="popover menu" cdkMenu>
        <button type="button" class="menu-item" cdkMenuItem (cdkMenuItemTriggered)="begun.emit()">New function</button>
        @for (name of shelf.names(); track name) {
          <button type="button" class="menu-item code-name" cdkMenuItem (cdkMenuItemTriggered)="chosen.emit(name)">{{ name }}</button>
        } @empty {
          <p class="hint px-2">No functions in the Library yet.</p>
        }
      </div>
    </ng-template>
  `,
})
export class FunctionMenu {
  readonly chosen = output<string>();
  readonly begun = output<void>();
  protected readonly shelf = inject(FunctionShelf);
}
