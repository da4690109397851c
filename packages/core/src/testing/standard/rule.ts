/** One rule of the standard: a program that keeps it, and one that breaks it. */
export interface Rule {
  /** Of “The OpenGL ES Shading Language”, version 3.00. */
  readonly section: string;
  readonly rule: string;
  readonly right: string;
  readonly wrong?: {
    readonly text: string;
    /** Where the first message has to stand. */
    readonly at: number;
    /** Words that it has to hold. */
    readonly words: string;
  };
}

/**
 * A rule, its programs in short. `¦` parts what stands outside of functions from what stands in `main`; without it all stands in
 * `main`. `‹` marks the place of the mistake.
 */
export type Row = readonly [rule: string, right: string, wrong?: string, words?: string];

const HEAD = '#version 300 es\nprecision highp float;\nprecision highp int;\n';
const MARK = '‹';

export function rules(section: string, rows: readonly Row[]): Rule[] {
  return rulesOf(section, rows, program);
}

/** Rules whose programs in short are written out by the language's own way to begin and end one. */
export function rulesOf(section: string, rows: readonly Row[], write: (short: string) => string): Rule[] {
  return rows.map(([rule, right, wrong, words = '']) => {
    const marked = wrong === undefined ? undefined : write(wrong);
    return {
      section,
      rule,
      right: write(right),
      ...(marked === undefined ? {} : { wrong: { text: marked.replace(MARK, ''), at: marked.indexOf(MARK), words } }),
    };
  });
}

function program(short: string): string {
  const [first = '', second] = short.split('¦');
  const [outside, inside] = second === undefined ? ['', first] : [first, second];
  // Extensions stand before all code.
  if (outside.startsWith('#extension') || outside.startsWith('#‹extension'))
    return `#version 300 es\n${outside.trim()}\n${program(`¦${inside}`).replace('#version 300 es\n', '')}`;
  return `${HEAD}out vec4 pixel;\n${outside.trim()}\nvoid main() {\n  pixel = vec4(0.0);\n  ${inside.trim()}\n}\n`;
}
