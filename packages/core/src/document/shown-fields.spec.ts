import { newMesh } from './new-documents';
import { fieldsOf, withFields } from './shown-fields';

describe('Fields that a set shows', () => {
  const meshes = {
    hall: newMesh('field', {}, { field: 'f' }),
    own: newMesh('field', {}, { formula: 'mine' }),
    // Left from a field; another shape shows none.
    ball: newMesh('sphere', {}, { field: 'g' }),
  };

  it('are found by their ids, and stand with their texts', () => {
    expect([...fieldsOf({ meshes })]).toEqual(['f']);
    const shown = withFields(meshes, (id) => `text of ${id}`);
    expect([shown['hall']?.formula, shown['own']?.formula, shown['ball']?.formula]).toEqual(['text of f', 'mine', undefined]);
  });

  it('are without a text where they are not there, whatever stood in the set before', () => {
    const shown = withFields({ hall: { ...meshes.hall, formula: 'of yesterday' } }, () => undefined);
    expect(shown['hall']).toEqual(jasmine.objectContaining({ field: 'f' }));
    expect(shown['hall']?.formula).toBeUndefined();
  });

  it('are the same objects as long as nothing about them changes', () => {
    const [one, other] = [withFields(meshes, () => 'a'), withFields(meshes, () => 'a')];
    expect(one['hall']).toBe(other['hall']);
    expect(one['own']).toBe(meshes.own);
    expect(withFields(meshes, () => 'b')['hall']).not.toBe(one['hall']);
    const plain = { ball: meshes.ball };
    expect(withFields(plain, () => 'a')).toBe(plain);
  });
});
