import { inject, Injectable } from '@angular/core';
import { Notices } from '../notices/notices';

/** Takes files that were dropped where nothing on the page asks for them. */
export type TakesFiles = (files: readonly File[]) => unknown;

/** Files that were dropped anywhere: the page that is shown takes them, or says what it takes. */
@Injectable({ providedIn: 'root' })
export class FileDrops {
  private readonly notices = inject(Notices);
  private takers: readonly TakesFiles[] = [];

  /** A page takes files as long as it is shown. @returns ends that */
  takeWith(taker: TakesFiles): () => void {
    this.takers = [...this.takers, taker];
    return () => (this.takers = this.takers.filter((each) => each !== taker));
  }

  take(files: readonly File[]): void {
    if (files.length === 0) {
      this.notices.say('What was dropped holds no files.');
      return;
    }
    const taker = this.takers.at(-1);
    if (taker) taker(files);
    else this.refuse(files);
  }

  /** Says that files have no use here. */
  refuse(files: readonly File[]): void {
    const names = files.slice(0, 3).map(({ name }) => `“${name}”`);
    const more = files.length > names.length ? ` and ${files.length - names.length} more` : '';
    this.notices.say(
      `${names.join(', ')}${more} ${files.length === 1 ? 'was' : 'were'} not imported. Brelvin imports images (PNG, JPEG, WebP), environments (.hdr, .exr), meshes (.glb, .gltf, .obj with their files), zips of maps, and Brelvin files.`,
    );
  }
}
