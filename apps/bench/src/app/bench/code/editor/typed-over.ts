import { EditorView } from '@codemirror/view';

/**
 * Typing over what is selected. Left to the browser, the new text gets the style of what it replaces as an attribute, which the
 * content-security policy refuses and the console tells. So it is put in here, by the same handlers that see all else that is typed.
 */
export const typedOver = EditorView.domEventHandlers({
  beforeinput: (event, view) => {
    const { state } = view;
    const [text, { main }] = [event.data, state.selection];
    if (event.inputType !== 'insertText' || text === null || main.empty) return false;
    if (state.readOnly) return true;
    const put = () => state.update(state.replaceSelection(text), { userEvent: 'input.type', scrollIntoView: true });
    const handled = state.facet(EditorView.inputHandler).some((handle) => handle(view, main.from, main.to, text, put));
    if (!handled) view.dispatch(put());
    return true;
  },
});
