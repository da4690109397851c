/**
 * A program that is wrong, with what must be said of it first, as `line:column severity: words`, and what mends it.
 *
 * `inside`: statements of a `paint` that is right; `before`: declarations before one; `whole`: all there is, with a vertex
 * stage where there are two texts.
 */
export type WrongProgram = readonly [
  form: 'inside' | 'before' | 'whole',
  code: string | readonly [text: string, vertices: string],
  said: string,
  mend?: string,
];
