import { EditorState, type ChangeSpec, type Extension } from '@codemirror/state';
import { isSoundText, soundText } from '@brelvin/core';

/** Takes out of what is typed, pasted or dropped what no file can keep, and says so. */
export function soundInput(told: () => void): Extension {
  return EditorState.transactionFilter.of((transaction) => {
    if (!transaction.docChanged) return transaction;
    const changes: ChangeSpec[] = [];
    let sound = true;
    transaction.changes.iterChanges((from, to, _newFrom, _newTo, inserted) => {
      const text = inserted.toString();
      sound &&= isSoundText(text);
      changes.push({ from, to, insert: soundText(text) });
    });
    if (sound) return transaction;
    told();
    const { effects, scrollIntoView } = transaction;
    const [last] = changes.slice(-1) as { from: number; insert: string }[];
    const alone = changes.length === 1 && last ? { selection: { anchor: last.from + last.insert.length } } : {};
    return { changes, effects, scrollIntoView, ...alone };
  });
}
