import { buildMesh } from './build-mesh';
import { FormulaError, readFormula } from './formula';

describe('Formula meshes', () => {
  const failure = (text: string, shape: 'height' | 'surface' = 'height'): FormulaError => {
    try {
      buildMesh({ shape, numbers: { segments: 4 }, smooth: true, formula: text });
    } catch (error) {
      if (error instanceof FormulaError) return error;
      throw error;
    }
    throw new Error('the formula was taken');
  };

  it('reads an expression, and statements', () => {
    expect(readFormula('height', 'x * x + z')(3, 0.5)).toEqual([9.5]);
    expect(readFormula('surface', 'vec3 p = vec3(u, v, 0.0); return p * 2.0;')(0.5, 0.25)).toEqual([1, 0.5, 0]);
  });

  it('counts numbers without a point as floats, unless it speaks of whole numbers itself', () => {
    expect(readFormula('height', '5*x + z/2')(3, 1)).toEqual([15.5]);
    expect(readFormula('height', 'min(1, x) + 0.25')(3, 0)).toEqual([1.25]);
    expect(readFormula('height', 'float sum = 0.0; for (int i = 0; i < 3; i++) sum += x; return sum;')(2, 0)).toEqual([6]);
    const misspelt = failure('5*x +\n 3*sni(2*x)');
    expect([misspelt.line, misspelt.column]).toEqual([2, 4]);
  });

  it('takes normals from the partial derivatives: y = x² at x has (−2x, 1, 0)', () => {
    const mesh = buildMesh({ shape: 'height', numbers: { size: 2, segments: 8 }, smooth: true, formula: 'x * x' });
    for (let index = 0; index < mesh.positions.length / 3; index++) {
      const x = mesh.positions[index * 3] ?? 0;
      const length = Math.hypot(2 * x, 1);
      expect(mesh.normals[index * 3]).toBeCloseTo((-2 * x) / length, 3);
      expect(mesh.normals[index * 3 + 1]).toBeCloseTo(1 / length, 3);
    }
  });

  it('gives a typed sphere the normals of a sphere, its poles included', () => {
    const formula = 'vec3(sin(3.1416 * v) * cos(6.2832 * u), cos(3.1416 * v), -sin(3.1416 * v) * sin(6.2832 * u))';
    const mesh = buildMesh({ shape: 'surface', numbers: { segments: 16 }, smooth: true, formula });
    for (let index = 0; index < mesh.positions.length; index++)
      expect(Math.abs((mesh.normals[index] ?? 0) - (mesh.positions[index] ?? 0))).toBeLessThan(0.03);
  });

  it('says what is wrong, and where in the text', () => {
    const misspelt = failure('0.3 *\n sni(x)');
    expect(misspelt.message).toContain('"sni"');
    expect([misspelt.line, misspelt.column]).toEqual([2, 2]);
    expect(failure('vec2(x, z)').message).toContain('float');
    expect(failure('').message.length).toBeGreaterThan(5);
  });

  it('says where a result is not a number', () => {
    expect(failure('1.0 / (x - x)').message).toMatch(/x = -?[\d.]+, z = -?[\d.]+ the result is not a finite number/);
  });

  it('refuses what only a surface in the picture has, and what never ends', () => {
    expect(failure('surfaceUv().x').message).toContain('only a surface in the picture has');
    expect(failure('float y = 0.0; while (true) y += 1.0; return y;').message).toContain('never ends');
  });
});
