import { THUMBNAIL } from '@brelvin/core';
import type { Stores } from '../store/document-file';
import type { ChildLimits } from './limited-child';
import { renderJob } from './render-job';

/** Draws pictures for the Library that no page has drawn, the newest material first. */
export class LibraryPictures {
  /** Materials of which there is no picture, as of a step: they are tried again once somebody has changed them. */
  private readonly refused = new Set<string>();

  constructor(
    private readonly stores: Stores,
    private readonly limits: ChildLimits,
    /** For so long a page may do it itself. */
    private readonly afterSeconds: number,
    private readonly log: (words: string) => void,
  ) {}

  /** Draws one, if any is wanted. @returns whether one was drawn */
  async drawNext(stop: AbortSignal): Promise<boolean> {
    const wanted = await this.stores.documents.withoutPicture(this.afterSeconds);
    const next = wanted.find(({ id, step }) => !this.refused.has(`${id} ${step}`));
    if (!next) return false;
    const made = await renderJob(this.stores, { document: next.id, ...THUMBNAIL }, this.limits, { onProgress: () => undefined, stop });
    if (stop.aborted) return false;
    // A picture with placeholders would stay.
    if ('fault' in made || made.lacks !== undefined) {
      this.refused.add(`${next.id} ${next.step}`);
      this.log(`no picture of ${next.id}: ${'fault' in made ? made.fault : made.lacks}`);
      return false;
    }
    await this.stores.documents.saveThumbnail(next.id, next.step, made.png);
    return true;
  }
}
