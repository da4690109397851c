import { Directive, inject, output } from '@angular/core';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { EnvironmentWork } from './environment-work';

/** Takes an environment that is dropped here: one panorama, or six images. */
@Directive({
  selector: '[brelvinEnvironmentDrop]',
  host: { '(dragover)': 'over($event)', '(drop)': 'drop($event)' },
})
export class EnvironmentDrop {
  /** Something was dropped that may be one. */
  readonly taken = output<void>();
  private readonly work = inject(EnvironmentWork);

  protected over(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  protected drop(event: DragEvent): void {
    const files = [...(event.dataTransfer?.files ?? [])];
    if (files.length === 0) return;
    event.preventDefault();
    if (!EnvironmentShelf.fits(files)) {
      this.taken.emit();
      this.work.refuse(
        'Dropped here, a file becomes the environment: one .hdr or .exr panorama, or six images of a cube. Drop images for the material on the graph.',
      );
      return;
    }
    this.taken.emit();
    void this.work.take(files);
  }
}
