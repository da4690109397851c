import { inject, Injectable, signal } from '@angular/core';
import { download } from '../../shared/pixels/download';
import { Notices } from '../../shared/notices/notices';
import { DocumentStore } from '../documents/document-store';
import type { StillWish } from './kept-pictures';
import { StageBinding } from './stage-binding';

/** Draws stills and hands them to the user; one at a time, told of while it is drawn. */
@Injectable()
export class StillWork {
  private readonly binding = inject(StageBinding);
  private readonly notices = inject(Notices);
  private readonly store = inject(DocumentStore);
  private readonly drawing = signal(false);
  readonly busy = this.drawing.asReadonly();

  async save({ size, transparent }: Pick<StillWish, 'size' | 'transparent'>): Promise<void> {
    if (this.drawing()) return;
    this.drawing.set(true);
    const words = `A still of ${size.width} × ${size.height} pixels`;
    const told = this.notices.work(words);
    const goesOn = (done: number, of: number): boolean => {
      told.progress(done / of, of > 1 ? `${words}: tile ${Math.min(done + 1, of)} of ${of}` : words);
      return !told.signal.aborted;
    };
    try {
      const still = await this.binding.engine()?.still({ size, transparent, goesOn });
      if (still) download(still, `${this.store.material()?.name ?? 'still'}.png`);
      if (still || told.signal.aborted) told.close();
      else told.end('The still was not drawn: there is no graphics device now. Try again when the picture is back.');
    } catch (error) {
      told.end(`The still was not saved. ${error instanceof Error ? error.message : ''} Try a smaller size.`);
    } finally {
      this.drawing.set(false);
    }
  }
}
