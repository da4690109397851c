import { FIRST_FIELD } from '../field/read-field';
import { FormulaError } from '../mesh/formula';
import { assembleMesh } from './assemble-mesh';
import { fieldScene } from './field-scene';
import { ImportRefused } from './imported-scene';

describe('A field as a mesh', () => {
  it('has its regions as parts, and all that shading needs', () => {
    const scene = fieldScene(FIRST_FIELD, {}, 24);
    // It stands in six of the eight parts of a box of 4 m: 3 m over 24 cells.
    expect(scene.words).toEqual(['Cells of 0.13 m: what is thinner may be lost, and edges are cut.']);
    const { mesh, facts } = assembleMesh(scene.pieces);
    expect(facts.parts).toEqual(['Float', 'Collar']);
    expect(facts.made).toEqual(['uvs', 'tangents', 'secondUvs']);
    expect(facts.inwards).toBeUndefined();
    expect(mesh.bounds.high[1]).toBeCloseTo(1, 1);
    expect(mesh.bounds.high[0]).toBeCloseTo(0.79, 1);
  });

  it('keeps to a fineness that can be had', () => {
    const ball = 'float field(vec3 p) { return sphereField(p, 1.0); }';
    const count = (cells: number): number => assembleMesh(fieldScene(ball, {}, cells).pieces).facts.triangles;
    expect(count(16)).toBeGreaterThan(100);
    expect(count(1)).toBe(count(16));
  });

  it('says what it cannot be', () => {
    expect(() => fieldScene('float field(vec3 p) { return q; }', {}, 16)).toThrowError(FormulaError);
    expect(() => fieldScene('float field(vec3 p) { return 1.0; }', {}, 16)).toThrowError(ImportRefused, /no surface in its box/);
    const moving = fieldScene('float field(vec3 p) { return sphereField(p, 1.0 + 0.1 * sin(stageTime())); }', {}, 16);
    expect(moving.words.slice(1)).toEqual(['It moves with the clock: the mesh is what it is at the start.']);
  });
});
