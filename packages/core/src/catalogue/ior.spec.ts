import { callNumber } from '../testing/call-shader';
import { iorOfReflectivity, reflectivityOfIor } from './ior';

describe('Index of refraction and reflectivity', () => {
  it('are linked, there and back, as the shader library has it', () => {
    for (const ior of [1, 1.33, 1.5, 2.42]) {
      expect(iorOfReflectivity(reflectivityOfIor(ior))).toBeCloseTo(ior, 9);
      expect(reflectivityOfIor(ior)).toBeCloseTo(callNumber('reflectivityFromIor(float)', ior), 6);
    }
    expect(iorOfReflectivity(0.08)).toBeCloseTo(callNumber('iorFromReflectivity(float)', 0.08), 6);
    expect(Number.isFinite(iorOfReflectivity(1))).toBeTrue();
  });
});
