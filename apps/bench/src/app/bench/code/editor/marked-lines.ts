import { RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';

/** Lines, from 1, that belong to what is chosen elsewhere. */
const markLines = StateEffect.define<readonly number[]>();

const MARK = Decoration.line({ class: 'code-marked' });

const marked = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, transaction) => {
    for (const effect of transaction.effects) {
      if (!effect.is(markLines)) continue;
      const builder = new RangeSetBuilder<Decoration>();
      for (const line of [...effect.value].sort((a, b) => a - b)) {
        if (line >= 1 && line <= transaction.state.doc.lines)
          builder.add(transaction.state.doc.line(line).from, transaction.state.doc.line(line).from, MARK);
      }
      return builder.finish();
    }
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** Marks these lines, and brings the first of them into view. */
export function markAndShow(view: EditorView, lines: readonly number[]): void {
  const { doc } = view.state;
  const [first] = lines.filter((line) => line >= 1 && line <= doc.lines).sort((a, b) => a - b);
  const shown = first === undefined ? [] : [EditorView.scrollIntoView(doc.line(first).from, { y: 'nearest', yMargin: 40 })];
  view.dispatch({ effects: [markLines.of(lines), ...shown] });
}

export const markedLines: Extension = marked;
