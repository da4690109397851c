import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { PAGE_DEVICES } from '@brelvin/devices';
import { Choices } from '../../shared/controls/choices';
import { DeviceChoice } from './device-choice';
import { StageBinding } from './stage-binding';
import { DEVICE_WORDS } from './stage-device';

/** Which device draws, and which is to. */
@Component({
  selector: 'brelvin-device-field',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  host: { class: 'still-fields' },
  template: `
    <span class="field-label">Drawn with</span>
    <brelvin-choices label="Drawn with" [options]="devices" [value]="choice.wished()" (chosen)="choice.choose($event)" />
    <span class="device-draws" role="status">{{ told() }}</span>
  `,
})
export class DeviceField {
  protected readonly choice = inject(DeviceChoice);
  private readonly binding = inject(StageBinding);
  protected readonly devices = PAGE_DEVICES.map((value) => ({
    value,
    words: DEVICE_WORDS[value],
    help: 'Both draw the same picture. The choice is kept in this browser.',
  }));

  protected readonly told = computed(() => {
    const drawn = this.binding.state()?.device;
    return drawn ? (drawn.instead ?? `${DEVICE_WORDS[drawn.name]} draws.`) : 'Nothing draws yet.';
  });
}
