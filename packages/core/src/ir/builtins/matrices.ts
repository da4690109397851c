import type { BuiltinSection, Numbers } from './builtin';

const { fround } = Math;
const SIZES = [2, 3, 4] as const;
const nameOf = (columns: number, rows: number): string => (columns === rows ? `mat${columns}` : `mat${columns}x${rows}`);
const SHAPES = SIZES.flatMap((columns) => SIZES.map((rows) => ({ columns, rows })));

function squareSize({ length }: Numbers): number {
  return Math.sqrt(length);
}

function transposed(matrix: Numbers, columns: number): number[] {
  const rows = matrix.length / columns;
  return Array.from({ length: matrix.length }, (_, index) => matrix[(index % columns) * rows + Math.floor(index / columns)] ?? 0);
}

/** The matrix without a column and a row. */
function without(matrix: Numbers, column: number, row: number): number[] {
  const size = squareSize(matrix);
  return matrix.filter((_, index) => Math.floor(index / size) !== column && index % size !== row);
}

/** Laplace expansion along the first column. */
function determinant(matrix: Numbers): number {
  if (matrix.length === 1) return matrix[0] ?? 0;
  const size = squareSize(matrix);
  let sum = 0;
  for (let row = 0; row < size; row++)
    sum = fround(sum + fround((row % 2 === 0 ? 1 : -1) * (matrix[row] ?? 0) * determinant(without(matrix, 0, row))));
  return sum;
}

/** The transposed matrix of cofactors over the determinant (Cramer's rule). */
function inverse(matrix: Numbers = []): number[] {
  const size = squareSize(matrix);
  const whole = determinant(matrix);
  return matrix.map((_, index) => {
    const [column, row] = [Math.floor(index / size), index % size];
    return fround(((column + row) % 2 === 0 ? 1 : -1) * determinant(without(matrix, row, column))) / whole;
  });
}

/** Matrix functions, GLSL ES 3.00 section 8.6. */
export const MATRICES: BuiltinSection = {
  matrixCompMult: {
    signatures: SHAPES.map(({ columns, rows }) => `${nameOf(columns, rows)}(${nameOf(columns, rows)},${nameOf(columns, rows)})`),
    help: 'Component by component, unlike *.',
    evaluate: (a = [], b = []) => a.map((each, index) => each * (b[index] ?? 0)),
  },
  outerProduct: {
    signatures: SHAPES.map(({ columns, rows }) => `${nameOf(columns, rows)}(vec${rows},vec${columns})`),
    help: 'The matrix of all products of a component of one and one of the other.',
    evaluate: (column = [], row = []) => row.flatMap((across) => column.map((down) => down * across)),
  },
  transpose: {
    signatures: SHAPES.map(({ columns, rows }) => `${nameOf(rows, columns)}(${nameOf(columns, rows)})`),
    help: 'Rows and columns exchanged.',
    evaluate: (matrix = [], [columns = squareSize(matrix)] = []) => transposed(matrix, columns),
  },
  determinant: {
    signatures: ['float(M)'],
    help: 'By how much the matrix scales volume; negative where it mirrors.',
    evaluate: (matrix = []) => [determinant(matrix)],
  },
  inverse: { signatures: ['M(M)'], help: 'The matrix that takes it back. Not defined where the determinant is 0.', evaluate: inverse },
};
