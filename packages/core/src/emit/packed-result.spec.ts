import type { Material } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { GraphEdits } from '../document/graph-edits';
import type { Edit } from '../document/edit';
import { edited, materialOf } from '../testing/graphs';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { demoLibrary } from '../demo/demo-library';
import { compileFor } from './emitted-material';
import { GLSL_TARGET } from './glsl/target';
import { packResult, unpackResult } from './packed-result';

const addNode = (id: string, kind: string): Edit => new GraphEdits().addNode(id, { kind, rev: 1, x: 0, y: 0, values: {} }, '');

describe('A packed result', () => {
  for (const { id, document } of DEMO_DOCUMENTS.filter((each) => each.document.format === 'brelvin-material')) {
    it(`unpacks to what was packed: ${id}`, () => {
      const result = compileFor(GLSL_TARGET, document as Material, demoLibrary());
      // The smallest program has no numbers.
      if (id !== 'material-signal-flag') expect(result.compiled?.slots.length).toBeGreaterThan(0);
      expect(unpackResult(packResult(result))).toEqual(result);
    });
  }

  it('keeps where each number comes from, be it an inlet, a factor or the pointer', () => {
    const nodes = { p: 'place', f: 'pointerOver', t: 'time', s: 'physicalSurface' };
    const ribbons = { 's.roughness': 'p.y', 's.metallic': 'f', 's.occlusion': 't', 'dock.colour': 's' };
    const material = edited(
      materialOf(nodes, ribbons),
      new GraphEdits().setFactor(materialOf(nodes, ribbons), { node: 's', inlet: 'roughness' }, 0.25, ''),
    );
    const { compiled } = compileFor(GLSL_TARGET, material);
    const kinds = compiled?.slots.map(({ source }) => source.from);
    for (const each of ['inlet', 'factor', 'pointer']) expect(kinds).toContain(each);
    expect(unpackResult(packResult({ compiled, problems: [], rates: {} })).compiled?.slots).toEqual(compiled?.slots);
  });

  it('sends nothing again that the receiver has, and all that changed', () => {
    const start = materialOf({ c: 'colour', l: 'lambert' }, { 'l.base': 'c', 'dock.colour': 'l' });
    const before = compileFor(GLSL_TARGET, start);
    const spare = compileFor(GLSL_TARGET, edited(start, addNode('spare', 'sine')));
    expect(packResult(spare, before)).toEqual({ problems: [], rates: 'as before', compiled: 'as before' });
    expect(unpackResult(packResult(spare, before), before)).toEqual(spare);
    expect(unpackResult(packResult(spare, before), before).compiled).toBe(before.compiled);
    // The same program, fed from another node.
    const swapped = compileFor(GLSL_TARGET, materialOf({ d: 'colour', l: 'lambert' }, { 'l.base': 'd', 'dock.colour': 'l' }));
    expect(swapped.compiled?.key).toBe(before.compiled?.key);
    expect(unpackResult(packResult(swapped, before), before)).toEqual(swapped);
    const shadowed = compileFor(GLSL_TARGET, start, library(), { variants: ['shadowed'] });
    expect(unpackResult(packResult(shadowed, before), before)).toEqual(shadowed);
    const broken = { problems: [{ node: 'a', message: 'b' }], rates: {} };
    expect(unpackResult(packResult(broken, before), before)).toEqual(broken);
    expect(() => unpackResult(packResult(spare, before))).toThrowError(RangeError);
  });

  it('carries problems of a material that does not compile', () => {
    const result = { problems: [{ node: 'a', message: 'b' }], rates: {} };
    expect(unpackResult(packResult(result))).toEqual(result);
  });
});
