import { CdkConnectedOverlay, type ConnectedPosition } from '@angular/cdk/overlay';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, contentChild, input, model, TemplateRef } from '@angular/core';

/** Where a popover stands. */
const PLACES = {
  /** Beside what opens it, and never towards the Stage, which stands at the right. */
  beside: [
    { originX: 'start', originY: 'bottom', overlayX: 'start', overlayY: 'top', offsetY: 4 },
    { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetY: 4 },
    { originX: 'start', originY: 'top', overlayX: 'start', overlayY: 'bottom', offsetY: -4 },
    { originX: 'end', originY: 'top', overlayX: 'end', overlayY: 'bottom', offsetY: -4 },
  ],
  /** To the left of the Stage's bar: beside the picture, never over it. */
  'left of the stage': [{ originX: 'start', originY: 'bottom', overlayX: 'end', overlayY: 'bottom', offsetX: -8, offsetY: 0 }],
} satisfies Record<string, ConnectedPosition[]>;

/** Something that stands over the page until one presses beside it, or Escape. Its content is a template, made when it opens. */
@Component({
  selector: 'brelvin-popover',
  imports: [CdkConnectedOverlay, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: ':host { display: contents; }',
  template: `
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="anchor()"
      [cdkConnectedOverlayOpen]="open()"
      [cdkConnectedOverlayPositions]="positions()"
      [cdkConnectedOverlayPush]="place() === 'beside'"
      (overlayOutsideClick)="open.set(false)"
      (overlayKeydown)="$event.key === 'Escape' && open.set(false)"
    >
      <div class="popover" [class]="look()" [attr.role]="label() ? role() : null" [attr.aria-label]="label()">
        <ng-container [ngTemplateOutlet]="content()" />
      </div>
    </ng-template>
  `,
})
export class Popover {
  /** What it stands beside. */
  readonly anchor = input.required<HTMLElement>();
  readonly place = input<keyof typeof PLACES>('beside');
  /** Nothing where its content says what it is. */
  readonly label = input<string>();
  readonly role = input<'dialog' | 'group'>('dialog');
  /** The class of its inside. */
  readonly look = input('');
  readonly open = model.required<boolean>();
  protected readonly content = contentChild.required(TemplateRef);
  protected readonly positions = computed((): ConnectedPosition[] => PLACES[this.place()]);
}
