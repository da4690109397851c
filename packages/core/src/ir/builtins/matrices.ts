import type { BuiltinSection, Numbers } from './builtin';

function transpose(matrix: Numbers = []): number[] {
  const size = Math.sqrt(matrix.length);
  return matrix.map((_, index) => matrix[(index % size) * size + Math.floor(index / size)] ?? 0);
}

/** Matrix functions, GLSL ES 3.00 section 8.6. */
export const MATRICES: BuiltinSection = {
  matrixCompMult: { signatures: ['M(M,M)'], help: 'Component by component, unlike *.' },
  outerProduct: {
    signatures: ['mat2(vec2,vec2)', 'mat3(vec3,vec3)', 'mat4(vec4,vec4)'],
    help: 'The matrix of all products of a component of one and one of the other.',
  },
  transpose: { signatures: ['M(M)'], help: 'Rows and columns exchanged.', evaluate: transpose },
  determinant: { signatures: ['float(M)'], help: 'By how much the matrix scales volume; negative where it mirrors.' },
  inverse: { signatures: ['M(M)'], help: 'The matrix that takes it back. Not defined where the determinant is 0.' },
};
