import { Directive, inject, output } from '@angular/core';
import { droppedFiles } from '../../shared/files/dropped-files';
import { FileDrops } from '../../shared/files/file-drops';
import { sortedFiles } from '../../shared/files/sorted-files';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { Notices } from '../../shared/notices/notices';
import { BenchLayout } from '../layout/bench-layout';
import { EnvironmentEditor } from './environment-editor';

const REFUSED =
  'Dropped here, a file becomes the environment (one .hdr or .exr panorama, or six images of a cube) or the mesh (.glb, .gltf, .obj). Drop images for the material on the graph.';

/** Takes what is dropped on the Stage: an environment (one panorama, or six images), or a mesh with its files. */
@Directive({
  selector: '[brelvinEnvironmentDrop]',
  host: { '(dragover)': 'over($event)', '(drop)': 'drop($event)' },
})
export class EnvironmentDrop {
  /** Something was dropped that may be one. */
  readonly taken = output<void>();
  /** A mesh was dropped, with all that came with it. */
  readonly meshDropped = output<readonly File[]>();
  private readonly editor = inject(EnvironmentEditor);
  private readonly drops = inject(FileDrops);
  private readonly layout = inject(BenchLayout);
  private readonly notices = inject(Notices);

  protected over(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  protected drop(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    void droppedFiles(event.dataTransfer).then((files) => this.take(files));
  }

  private take(files: readonly File[]): void {
    if (files.length === 0) return;
    if (MeshShelf.meshesAmong(files).length > 0) {
      this.meshDropped.emit(files);
      return;
    }
    if (sortedFiles(files).documents.length > 0) {
      this.drops.take(files);
      return;
    }
    if (!EnvironmentShelf.fits(files)) {
      this.taken.emit();
      this.editor.refuse(REFUSED);
      // While the picture has the window, its panel is not seen.
      if (this.layout.alone()) this.notices.say(REFUSED);
      return;
    }
    this.taken.emit();
    void this.editor.take(files);
  }
}
