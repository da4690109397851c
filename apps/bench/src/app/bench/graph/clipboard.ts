import type { GraphEditor } from './graph-editor';
import type { SurfaceActions } from './surface-binding';

/** Whether somebody writes in a field, which then keeps its keys and its clipboard. */
export function inText(event: Event): boolean {
  return (event.target as HTMLElement | null)?.closest?.('input, textarea, .cm-editor') instanceof Element;
}

/** Puts the chosen nodes on the clipboard; cutting takes them away. */
export function copyNodes(event: ClipboardEvent, work: GraphEditor, cut: boolean): void {
  const text = inText(event) ? undefined : work.copied();
  if (text === undefined || !event.clipboardData) return;
  event.clipboardData.setData('text/plain', text);
  event.preventDefault();
  if (cut) work.remove();
}

/** Nodes or image files from the clipboard, put where the pointer is. */
export function pasteNodes(event: ClipboardEvent, work: GraphEditor, surface: SurfaceActions | undefined): void {
  if (inText(event) || !surface || !event.clipboardData) return;
  const files = [...event.clipboardData.files];
  event.preventDefault();
  if (files.length > 0) void surface.takeFiles(files, surface.pastePlace());
  else work.paste(event.clipboardData.getData('text/plain'), surface.pastePlace());
}
