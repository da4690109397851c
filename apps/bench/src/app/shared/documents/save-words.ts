import type { SaveState } from './document-saver';

/** What became of the last changes, in words. */
export function saveWords(state: SaveState): string {
  if (state.kind === 'away') return `Not saved: ${state.message} Trying again.`;
  if (state.kind === 'refused') return `Not all saved: ${state.message}`;
  if (state.kind === 'deleted') return `Not saved: ${state.message}`;
  return state.kind;
}
