import type { Change } from '@brelvin/contract';

/** What a gesture does to a document, in words and changes. */
export interface Edit {
  readonly label: string;
  readonly changes: readonly Change[];
}

/** Several edits as one step. */
export function joinEdits(label: string, ...edits: readonly Edit[]): Edit {
  return { label, changes: edits.flatMap((edit) => edit.changes) };
}
