import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { hexFromLinear } from '@brelvin/core';
import { ColourPicker, type ColourChange } from './colour-picker';

/** Beside the field and never towards the Stage, which stands at the right. */
export const BESIDE: ConnectedPosition[] = [
  { originX: 'start', originY: 'bottom', overlayX: 'start', overlayY: 'top', offsetY: 4 },
  { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetY: 4 },
  { originX: 'start', originY: 'top', overlayX: 'start', overlayY: 'bottom', offsetY: -4 },
  { originX: 'end', originY: 'top', overlayX: 'end', overlayY: 'bottom', offsetY: -4 },
];

/** A swatch that opens the picker. */
@Component({
  selector: 'brelvin-colour',
  imports: [CdkOverlayOrigin, CdkConnectedOverlay, ColourPicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'colour-field' },
  template: `
    <button
      type="button"
      class="swatch"
      cdkOverlayOrigin
      #origin="cdkOverlayOrigin"
      [attr.aria-label]="label() + ', ' + hex()"
      [attr.aria-expanded]="open()"
      [title]="label() + ' ' + hex() + '. Click to pick.'"
      [style.background-color]="hex()"
      (click)="open.set(!open())"
      (pointerdown)="$event.stopPropagation()"
    ></button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="open()"
      [cdkConnectedOverlayPositions]="positions"
      [cdkConnectedOverlayPush]="true"
      (overlayOutsideClick)="open.set(false)"
      (overlayKeydown)="$event.key === 'Escape' && open.set(false)"
    >
      <brelvin-colour-picker class="popover" [label]="label()" [value]="value()" (changed)="changed.emit($event)" (done)="close(origin)" />
    </ng-template>
  `,
})
export class ColourField {
  readonly value = input.required<readonly number[]>();
  readonly label = input.required<string>();
  readonly changed = output<ColourChange>();
  protected readonly open = signal(false);
  protected readonly hex = computed(() => hexFromLinear(this.value()));
  protected readonly positions = BESIDE;

  /** Closes the picker and gives the focus back to the swatch. */
  protected close({ elementRef }: CdkOverlayOrigin): void {
    this.open.set(false);
    (elementRef.nativeElement as HTMLElement).focus();
  }
}
