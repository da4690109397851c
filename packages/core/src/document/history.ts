import type { Change, Transaction } from '@brelvin/contract';
import { applyChanges, condense, invertChanges, UnfitChange } from './transaction';

/** One step that can be taken back, on one of the documents on the Bench. */
export interface HistoryEntry {
  readonly document: string;
  readonly label: string;
  readonly forward: readonly Change[];
  readonly inverse: readonly Change[];
  readonly gesture?: string;
  /** When it was done, milliseconds since 1970; decides whose turn it is between documents. */
  readonly at?: number;
}

/** Undo goes by time over all documents on the Bench. */
export interface History {
  readonly done: readonly HistoryEntry[];
  readonly undone: readonly HistoryEntry[];
}

export const EMPTY_HISTORY: History = { done: [], undone: [] };
/** Steps share what they leave alone, so many are cheap to keep. */
const LONGEST_HISTORY = 20_000;

/** Adds a step; one of the same gesture as the last becomes part of it. Steps taken back before are gone. */
export function record(history: History, entry: HistoryEntry): History {
  const last = history.done.at(-1);
  if (last?.gesture && last.gesture === entry.gesture && last.document === entry.document) {
    const merged: HistoryEntry = {
      ...last,
      label: entry.label,
      at: entry.at,
      forward: condense([...last.forward, ...entry.forward]),
      // Going back, what is applied last decides: the earliest edit's inverse stays.
      inverse: condense([...entry.inverse, ...last.inverse]),
    };
    return { done: [...history.done.slice(0, -1), merged], undone: [] };
  }
  return { done: [...history.done.slice(-LONGEST_HISTORY + 1), entry], undone: [] };
}

/** The step to take back, with the history after doing so; nothing when there is none. */
export function undo(history: History): { entry: HistoryEntry; history: History } | undefined {
  const entry = history.done.at(-1);
  return entry && { entry, history: { done: history.done.slice(0, -1), undone: [...history.undone, entry] } };
}

export function redo(history: History): { entry: HistoryEntry; history: History } | undefined {
  const entry = history.undone.at(-1);
  return entry && { entry, history: { done: [...history.done, entry], undone: history.undone.slice(0, -1) } };
}

/** A document left the Bench: its steps cannot be taken back any more. */
export function forget(history: History, document: string): History {
  const others = (entries: readonly HistoryEntry[]): HistoryEntry[] => entries.filter((entry) => entry.document !== document);
  return { done: others(history.done), undone: others(history.undone) };
}

/** A stored step, with the moment it was stored. */
export interface PastStep extends Transaction {
  readonly at: number;
}

/**
 * What can be taken back and done again after opening a document: its last steps, replayed from the state
 * before them. Steps that took others back, or did them again, count as such.
 */
export function historyOf(document: string, base: unknown, steps: readonly PastStep[]): History {
  let history = EMPTY_HISTORY;
  let state = base;
  for (const { label, changes, gesture, direction, at } of steps) {
    try {
      const inverse = invertChanges(state, changes);
      const back = direction === 'undo' ? undo(history) : direction === 'redo' ? redo(history) : undefined;
      history = back ? back.history : record(history, { document, label, forward: changes, inverse, gesture, at });
      state = applyChanges(state, changes);
    } catch (error) {
      // A step from another form of the document: what was before it cannot be reached any more.
      if (!(error instanceof UnfitChange)) throw error;
      return EMPTY_HISTORY;
    }
  }
  return history;
}

/** Histories of several documents as one, by time. */
export function mergeHistories(a: History, b: History): History {
  const time = ({ at = 0 }: HistoryEntry): number => at;
  return {
    done: [...a.done, ...b.done].sort((one, other) => time(one) - time(other)),
    undone: [...a.undone, ...b.undone].sort((one, other) => time(other) - time(one)),
  };
}
