import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { PAGE_DEVICES } from '@brelvin/devices';
import { DeviceChoice } from './device-choice';
import { StageBinding } from './stage-binding';
import { DEVICE_WORDS } from './stage-device';

/** Which device draws, and which is to. */
@Component({
  selector: 'brelvin-device-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  host: { class: 'still-fields' },
  template: `
    <span class="field-label">Drawn with</span>
    <div class="choices" role="radiogroup" aria-label="Drawn with">
      @for (name of names; track name) {
        <button
          type="button"
          class="choice"
          role="radio"
          [attr.data-device]="name"
          [attr.aria-checked]="choice.wished() === name"
          title="Both draw the same picture. The choice is kept in this browser."
          (click)="choice.choose(name)"
        >
          {{ words[name] }}
        </button>
      }
    </div>
    <span class="device-draws" role="status">{{ told() }}</span>
  `,
})
export class DeviceField {
  protected readonly choice = inject(DeviceChoice);
  private readonly binding = inject(StageBinding);
  protected readonly names = PAGE_DEVICES;
  protected readonly words = DEVICE_WORDS;

  protected readonly told = computed(() => {
    const drawn = this.binding.state()?.device;
    return drawn ? (drawn.instead ?? `${DEVICE_WORDS[drawn.name]} draws.`) : 'Nothing draws yet.';
  });
}
