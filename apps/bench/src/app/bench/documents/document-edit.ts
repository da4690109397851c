import type { Edit } from '@brelvin/core';

/** An edit of a document; those of one gesture become one step. */
export interface DocumentEdit {
  readonly edit: Edit;
  readonly gesture?: string;
}
