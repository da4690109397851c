import { EditorView, ViewPlugin } from '@codemirror/view';

/** Keeps the line of the cursor in view when the field gets lower: what is wrong with that line is told below the field. */
export const cursorInView = ViewPlugin.define((view) => {
  let height = view.dom.clientHeight;
  const observer = new ResizeObserver(() => {
    const before = height;
    height = view.dom.clientHeight;
    if (height >= before) return;
    const { head } = view.state.selection.main;
    const [cursor, { top, bottom }] = [view.coordsAtPos(head), view.scrollDOM.getBoundingClientRect()];
    if (cursor && cursor.bottom > bottom && cursor.bottom <= top + before) view.dispatch({ effects: EditorView.scrollIntoView(head) });
  });
  observer.observe(view.dom);
  return { destroy: () => observer.disconnect() };
});
