import { buildMesh, type MeshRecipe } from './build-mesh';
import { hasSharpEdges } from './sharp-edges';

describe('Sharp edges', () => {
  const sharp = (shape: MeshRecipe['shape'], smooth = true): boolean => hasSharpEdges(buildMesh({ shape, numbers: {}, smooth }));

  it('are found where faces meet with normals of their own', () => {
    expect(sharp('cube', false)).toBeTrue();
    expect(sharp('cylinder')).toBeTrue();
    expect(sharp('sphere', false)).toBeTrue();
  });

  it('are not found where normals only meet at a seam of UVs', () => {
    expect(sharp('sphere')).toBeFalse();
    expect(sharp('torus')).toBeFalse();
    expect(sharp('cube')).toBeFalse();
    expect(sharp('plane')).toBeFalse();
  });
});
