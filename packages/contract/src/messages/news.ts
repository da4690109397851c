import { assetAddress, documentId, LONGEST_NAME } from '../documents/names';
import { described, either, flag, list, object, optional, text, type TypeOf } from '../schema/schema';
import { JOB_NEWS, type JobNews } from './jobs';
import { stepNumber } from './steps';

/** Documents that one window hears of. */
export const MOST_WATCHED = 1000;

/** What a window wants to hear. */
export const WATCH = object({
  watch: optional(list(documentId, 0, MOST_WATCHED), 'Documents whose news it wants.'),
  jobs: optional(list(documentId, 0, MOST_WATCHED), 'Jobs whose progress it wants.'),
  shelves: optional(flag, 'Whether it wants to hear that anything was made, changed, deleted or restored.'),
});

export const DOCUMENT_NEWS = object({
  id: documentId,
  step: optional(stepNumber, 'Its new last step; 0 of a new one.'),
  named: optional(text(LONGEST_NAME), 'One of its steps was given a name.'),
  deleted: optional(flag),
  restored: optional(flag),
});
/** A file came, or changed. */
export const ASSET_NEWS = object({ asset: assetAddress });
/** All shelves are to be listed anew. */
export const SHELF_NEWS = object({ shelves: flag });
/** News were lost: everything is to be looked at again. */
export const LOST_NEWS = object({ again: described(flag, 'Always true.') });

/** What windows are told. */
export const TOLD = either(
  [DOCUMENT_NEWS, JOB_NEWS, SHELF_NEWS, LOST_NEWS],
  'news of a document, a job, of shelves, or that some were lost',
);

export interface Watch extends TypeOf<typeof WATCH> {}

/** Something happened to a document. */
export interface DocumentNews extends TypeOf<typeof DOCUMENT_NEWS> {}

/** What servers on one database tell each other. */
export type News = DocumentNews | JobNews | TypeOf<typeof ASSET_NEWS>;

export type Told = TypeOf<typeof TOLD>;
