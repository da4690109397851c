import { inText } from '../../shared/controls/in-text';
import type { GraphEditor } from '../editors/graph-editor';
import type { SurfaceActions } from '../editors/surface-binding';

/** Puts the chosen nodes on the clipboard; cutting takes them away. */
export function copyNodes(event: ClipboardEvent, editor: GraphEditor, cut: boolean): void {
  const text = inText(event) ? undefined : editor.copied();
  if (text === undefined || !event.clipboardData) return;
  event.clipboardData.setData('text/plain', text);
  event.preventDefault();
  if (cut) editor.remove();
}

/** Nodes or image files from the clipboard, put where the pointer is. */
export function pasteNodes(event: ClipboardEvent, editor: GraphEditor, surface: SurfaceActions | undefined): void {
  if (inText(event) || !surface || !event.clipboardData) return;
  const files = [...event.clipboardData.files];
  event.preventDefault();
  if (files.length > 0) void surface.takeFiles(files, surface.pastePlace());
  else editor.paste(event.clipboardData.getData('text/plain'), surface.pastePlace());
}
