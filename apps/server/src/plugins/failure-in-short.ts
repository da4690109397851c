/**
 * What the log keeps of a failure: what went wrong and where in the code, but nothing of what somebody was making. A failed
 * query names its values in its message and the database in its details.
 */
export function inShort(error: Error): { readonly name: string; readonly message: string; readonly code?: string; readonly at: string } {
  let root: Error = error;
  while (root.cause instanceof Error) root = root.cause;
  const { code } = root as { code?: string };
  const places = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  const clip = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most)} …` : text);
  return {
    name: root.name,
    message: clip(root.message.split('\n')[0] ?? '', 300),
    ...(code ? { code } : {}),
    at: clip(places.slice(0, 8).join(' <'), 1500),
  };
}
