import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Icon } from '../../shared/icons/icon';
import type { SendOutWish } from './send-out';

/** What of the Bench is to become a file: the material alone, with all that is seen with it, or what it stands in. */
@Component({
  selector: 'brelvin-send-out-menu',
  imports: [CdkMenu, CdkMenuItem, CdkMenuTrigger, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="bar-button"
      title="Export a Brelvin file, to keep or to pass on"
      [cdkMenuTriggerFor]="menu"
      #trigger="cdkMenuTriggerFor"
      (keydown.escape)="trigger.close()"
    >
      <brelvin-icon name="download" /> export <brelvin-icon name="down" />
    </button>
    <ng-template #menu>
      <div class="popover menu" cdkMenu>
        <button
          type="button"
          class="menu-item"
          cdkMenuItem
          title="The material, its images and the functions it needs"
          (cdkMenuItemTriggered)="wanted.emit('material')"
        >
          this material only
        </button>
        <button
          type="button"
          class="menu-item"
          cdkMenuItem
          title="All that is seen: also its set with meshes and their materials, and the light rig with its environment and background"
          (cdkMenuItemTriggered)="wanted.emit('stage')"
        >
          with its set and light rig
        </button>
        <button
          type="button"
          class="menu-item"
          cdkMenuItem
          title="The set, its own meshes, and the materials of its parts"
          (cdkMenuItemTriggered)="wanted.emit('set')"
        >
          the set “{{ setName() }}”
        </button>
        <button
          type="button"
          class="menu-item"
          cdkMenuItem
          title="The light rig, its environment and background"
          (cdkMenuItemTriggered)="wanted.emit('rig')"
        >
          the light rig “{{ rigName() }}”
        </button>
      </div>
    </ng-template>
  `,
})
export class SendOutMenu {
  readonly setName = input('');
  readonly rigName = input('');
  readonly wanted = output<SendOutWish>();
}
