import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { outletKey } from '../stage/outlet-lens';
import { LensBinding, PREVIEW_SIDE } from './lens-binding';
import { OutletInspector } from './outlet-inspector';

/** A small picture of what a node gives, on a sphere. */
@Component({
  selector: 'brelvin-card-preview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './card-preview.css',
  host: { class: 'card-preview', title: 'What its first outlet gives, on a sphere' },
  template: `<canvas #canvas [attr.width]="side" [attr.height]="side" [attr.data-drawn]="place() ? '' : null"></canvas>`,
})
export class CardPreview {
  readonly node = input.required<string>();

  private readonly binding = inject(LensBinding);
  private readonly outlets = inject(OutletInspector);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly side = PREVIEW_SIDE;
  protected readonly place = computed(() => {
    const wish = this.outlets.previewed().get(this.node());
    return wish && this.binding.previews()?.places.get(outletKey(wish.outlet));
  });

  constructor() {
    effect((onCleanup) => {
      const node = this.node();
      this.binding.show(node, true);
      onCleanup(() => this.binding.show(node, false));
    });
    afterRenderEffect(() => {
      const context = this.canvas().nativeElement.getContext('2d');
      const [atlas, place] = [this.binding.previews(), this.place()];
      if (!context || !atlas || !place) return;
      const image = new ImageData(atlas.pixels, atlas.width);
      context.clearRect(0, 0, PREVIEW_SIDE, PREVIEW_SIDE);
      context.putImageData(image, -place.x, -place.y, place.x, place.y, atlas.side, atlas.side);
    });
  }
}
