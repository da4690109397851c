import type { GraphWork } from './graph-work';
import type { SurfaceHands } from './surface-link';

/** Whether somebody writes in a field, which then keeps its keys and its clipboard. */
export function inText(event: Event): boolean {
  return (event.target as HTMLElement | null)?.closest?.('input, textarea, .cm-editor') instanceof Element;
}

/** Puts the chosen nodes on the clipboard; cutting takes them away. */
export function copyNodes(event: ClipboardEvent, work: GraphWork, cut: boolean): void {
  const text = inText(event) ? undefined : work.copied();
  if (text === undefined || !event.clipboardData) return;
  event.clipboardData.setData('text/plain', text);
  event.preventDefault();
  if (cut) work.remove();
}

/** Nodes or image files from the clipboard, put where the pointer is. */
export function pasteNodes(event: ClipboardEvent, work: GraphWork, surface: SurfaceHands | undefined): void {
  if (inText(event) || !surface || !event.clipboardData) return;
  const files = [...event.clipboardData.files];
  event.preventDefault();
  if (files.length > 0) void surface.takeFiles(files, surface.pastePlace());
  else work.paste(event.clipboardData.getData('text/plain'), surface.pastePlace());
}
