import { afterRenderEffect, ChangeDetectionStrategy, Component, ElementRef, input, viewChild } from '@angular/core';
import type { SmallPicture } from './lit-normals';

/** Pixels as a picture on the page. */
@Component({
  selector: 'brelvin-small-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>`,
})
export class SmallPictureView {
  readonly label = input.required<string>();
  readonly picture = input.required<SmallPicture>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    afterRenderEffect(() => {
      const { width, height, data } = this.picture();
      const canvas = this.canvas().nativeElement;
      Object.assign(canvas, { width, height });
      canvas.getContext('2d')?.putImageData(new ImageData(data, width, height), 0, 0);
    });
  }
}
