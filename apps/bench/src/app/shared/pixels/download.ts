/** Hands a file to the user. */
export function download(content: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  // The browser has taken the content by then.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
