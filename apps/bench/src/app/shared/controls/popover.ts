import { CdkConnectedOverlay, type ConnectedPosition } from '@angular/cdk/overlay';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  DestroyRef,
  inject,
  input,
  model,
  TemplateRef,
  viewChild,
} from '@angular/core';

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
      [cdkConnectedOverlayViewportMargin]="8"
      [cdkConnectedOverlayPush]="place() === 'beside'"
      (attach)="follow()"
      (detach)="growth.disconnect()"
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
  /** It keeps left of this, CSS pixels of the window, whatever it stands beside; so it covers no picture. */
  readonly leftOf = input(Infinity);
  /** Nothing where its content says what it is. */
  readonly label = input<string>();
  readonly role = input<'dialog' | 'group'>('dialog');
  /** The class of its inside. */
  readonly look = input('');
  readonly open = model.required<boolean>();
  private readonly overlay = viewChild.required(CdkConnectedOverlay);
  /** What comes into it later may need another place. */
  protected readonly growth = new ResizeObserver(() => this.overlay().overlayRef?.updatePosition());
  protected readonly content = contentChild.required(TemplateRef);
  protected readonly positions = computed((): ConnectedPosition[] => {
    if (!this.open() || !Number.isFinite(this.leftOf())) return PLACES[this.place()];
    const offsetX = Math.min(this.leftOf() - this.anchor().getBoundingClientRect().left, 0);
    return [{ originX: 'start', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetX, offsetY: 4 }];
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.growth.disconnect());
  }

  protected follow(): void {
    this.growth.observe(this.overlay().overlayRef.overlayElement);
  }
}
