/** A text with its continued lines put together, and the way back from it to the text as written. */
export interface LogicalText {
  readonly text: string;
  /** The offset in the written text of an offset in this one. */
  written(offset: number): number;
}

/** Puts lines together that end in a backslash (GLSL ES 3.00 specification, section 3.2). */
export function logicalText(text: string): LogicalText {
  if (!text.includes('\\')) return { text, written: (offset) => offset };
  const pieces: string[] = [];
  /** Where each piece begins, in the put-together and in the written text. */
  const starts: { readonly at: number; readonly written: number }[] = [];
  let length = 0;
  let from = 0;
  const keep = (to: number): void => {
    starts.push({ at: length, written: from });
    pieces.push(text.slice(from, to));
    length += to - from;
  };
  for (const match of text.matchAll(/\\\r?\n/g)) {
    keep(match.index);
    from = match.index + match[0].length;
  }
  keep(text.length);
  const written = (offset: number): number => {
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle]?.at ?? 0) <= offset) low = middle;
      else high = middle - 1;
    }
    const { at = 0, written: place = 0 } = starts[low] ?? {};
    return place + offset - at;
  };
  return { text: pieces.join(''), written };
}
