import { library } from '../catalogue/library';
import { evaluateCall } from '../ir/evaluate';
import { components } from '../ir/value';
import { elaborate } from '../language';
import type { Vector3 } from './patch';

/** What a formula mesh is typed as: a height over the ground, or a place in space. */
export type FormulaShape = 'height' | 'surface';

const HEADS: Readonly<Record<FormulaShape, string>> = {
  height: 'float meshFormula(float x, float z)',
  surface: 'vec3 meshFormula(float u, float v)',
};
const SIGNATURE = 'meshFormula(float,float)';

/** The formula cannot be read; `line` and `column` count from 1 in the text as it was typed. */
export class FormulaError extends Error {
  constructor(
    message: string,
    readonly line: number,
    readonly column: number,
  ) {
    super(message);
  }
}

/**
 * Reads an expression, or statements with `return`, in x and z (metres) or u and v (0…1), as shading code with the
 * whole shader library at hand. Numbers without a point count as floats, unless it speaks of whole numbers itself: `5*x`.
 *
 * @throws FormulaError also when it cannot be computed, or gives no finite number
 */
export function readFormula(shape: FormulaShape, text: string): (a: number, b: number) => readonly number[] {
  const statements = /\breturn\b/.test(text);
  const before = `${HEADS[shape]} { ${statements ? '' : 'return '}`;
  const written = withFloats(text);
  const { module, diagnostics } = elaborate('formula', `${before}${written.text}${statements ? '' : ';'} }`, library().module);
  const error = diagnostics.find((each) => each.severity === 'error');
  if (error) {
    const at = Math.min(Math.max(written.typedAt(error.range.from - before.length), 0), text.length);
    const lines = text.slice(0, at).split('\n');
    throw new FormulaError(error.message, lines.length, (lines.at(-1)?.length ?? 0) + 1);
  }
  const { functions } = module;
  const formula = functions.get(SIGNATURE);
  if (!formula) throw new FormulaError('this is no formula', 1, 1);
  return (a, b) => {
    try {
      const result = components(evaluateCall(formula, [[a], [b]], { functions, globals: new Map() }).result);
      if (result.every(Number.isFinite)) return result;
    } catch {
      throw new FormulaError('this reads something that only a surface in the picture has, or never ends', 1, 1);
    }
    const names = shape === 'height' ? `x = ${round(a)}, z = ${round(b)}` : `u = ${round(a)}, v = ${round(b)}`;
    throw new FormulaError(`at ${names} the result is not a finite number`, 1, 1);
  };
}

const WHOLE_NUMBERS = /\b(?:u?int|[iu]vec[234])\b|\[/;
const WITHOUT_POINT = /(?<![\w.])\d+(?![\w.])/g;

/** The formula with a point behind each number that has none, and where a place in it was typed. */
function withFloats(text: string): { readonly text: string; readonly typedAt: (at: number) => number } {
  if (WHOLE_NUMBERS.test(text)) return { text, typedAt: (at) => at };
  const ends = [...text.matchAll(WITHOUT_POINT)].map((found, index) => found.index + found[0].length + index);
  return { text: text.replace(WITHOUT_POINT, '$&.'), typedAt: (at) => at - ends.filter((end) => end < at).length };
}

export function heightOf(formula: (x: number, z: number) => readonly number[], x: number, z: number): Vector3 {
  return [x, formula(x, z)[0] ?? 0, z];
}

export function placeOf(formula: (u: number, v: number) => readonly number[], u: number, v: number): Vector3 {
  const [x = 0, y = 0, z = 0] = formula(u, v);
  return [x, y, z];
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000;
}
