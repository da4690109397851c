import { differenceOf } from './difference';
import { newMaterial } from './new-documents';
import { applyChanges } from './transaction';

describe('Difference of documents', () => {
  it('turns one into the other, and touches nothing else', () => {
    const before = { ...newMaterial('Before'), notes: 'x' };
    const { lambert: _gone, ...nodes } = before.surface.nodes;
    const after = { ...before, name: 'After', tags: ['a'], surface: { ...before.surface, nodes, ribbons: {} } };
    const changes = differenceOf(before, after);
    const result = applyChanges(before, changes);
    expect(result as object).toEqual(after);
    expect(result.surface.nodes['colour']).toBe(before.surface.nodes['colour']);
    expect(changes.map((change) => change.path.join('.')).sort()).toEqual([
      'name',
      'surface.nodes.lambert',
      'surface.ribbons.dock.colour',
      'surface.ribbons.lambert.base',
      'tags',
    ]);
    expect(differenceOf(before, before)).toEqual([]);
    expect(differenceOf(before, JSON.parse(JSON.stringify(before)))).toEqual([]);
  });
});
