/** A text with blanks in the place of its comments, line for line (GLSL ES 3.00 specification, section 3.7). */
export function withoutComments(text: string): string {
  return text.replace(/\/\*[^]*?(?:\*\/|$)|\/\/[^\n]*/g, (comment) => comment.replace(/[^\n]/g, ' '));
}
