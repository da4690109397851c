import type { SaveState } from './document-saver';

/** What became of the last changes, in words. */
export function saveWords(state: SaveState): string {
  if (state.kind === 'away') return `Not saved: ${state.message} Trying again.`;
  if (state.kind === 'deleted' || state.kind === 'refused') return `Not saved: ${state.message}`;
  return state.kind;
}
