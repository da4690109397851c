import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { hexFromLinear } from '@brelvin/core';
import { ColourPicker, type ColourChange } from './colour-picker';
import { Popover } from './popover';

/** A swatch that opens the picker. */
@Component({
  selector: 'brelvin-colour',
  imports: [ColourPicker, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'colour-field' },
  template: `
    <button
      type="button"
      class="swatch"
      #origin
      [attr.aria-label]="label() + ', ' + hex()"
      [attr.aria-expanded]="open()"
      [title]="label() + ' ' + hex() + '. Click to pick.'"
      [style.background-color]="hex()"
      (click)="open.set(!open())"
      (pointerdown)="$event.stopPropagation()"
    ></button>
    <brelvin-popover look="colour-popover" [anchor]="origin" [(open)]="open">
      <ng-template>
        <brelvin-colour-picker [label]="label()" [value]="value()" (changed)="changed.emit($event)" (done)="close(origin)" />
      </ng-template>
    </brelvin-popover>
  `,
})
export class ColourField {
  readonly value = input.required<readonly number[]>();
  readonly label = input.required<string>();
  readonly changed = output<ColourChange>();
  protected readonly open = signal(false);
  protected readonly hex = computed(() => hexFromLinear(this.value()));

  /** Closes the picker and gives the focus back to the swatch. */
  protected close(swatch: HTMLElement): void {
    this.open.set(false);
    swatch.focus();
  }
}
