/** Whether somebody writes in a field, which then keeps its keys and its clipboard. */
export function inText(event: Event): boolean {
  return (event.target as HTMLElement | null)?.closest?.('input, textarea, .cm-editor') instanceof Element;
}
