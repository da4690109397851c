import type { Material } from '@brelvin/contract';
import { joinEdits } from './edit';
import { GraphEdits } from './graph-edits';
import { addParameter, applyVariant, keepVariant, setParameter } from './material-edits';
import { newMaterial } from './new-documents';
import { applyChanges } from './transaction';

const edits = new GraphEdits();
const start = newMaterial('m');
const after = (material: Material, ...edits: { changes: readonly never[] | readonly unknown[] }[]): Material =>
  edits.reduce((each, edit) => applyChanges(each, edit.changes as never), material);

describe('Edits of a graph', () => {
  it('take the ribbons at a node away with it', () => {
    const next = after(start, edits.remove(start, ['lambert']));
    expect(Object.keys(next.surface.nodes)).toEqual(['colour']);
    expect(next.surface.ribbons).toEqual({});
  });

  it('ignore nodes that are not there', () => {
    expect(edits.remove(start, ['nobody']).changes).toEqual([]);
    expect(edits.move(start, ['nobody'], 1, 1).changes).toEqual([]);
  });

  it('run one ribbon per inlet', () => {
    const next = after(start, edits.connect({ node: 'colour', outlet: 'result' }, { node: 'dock', inlet: 'colour' }));
    expect(next.surface.ribbons['dock.colour']).toEqual({ from: 'colour', outlet: 'result' });
    expect(after(next, edits.disconnect({ node: 'dock', inlet: 'colour' })).surface.ribbons['dock.colour']).toBeUndefined();
  });

  it('move, set and reset', () => {
    const moved = after(start, edits.move(start, ['colour'], 5.4, -3));
    expect([moved.surface.nodes['colour']?.x, moved.surface.nodes['colour']?.y]).toEqual([65, 117]);
    const set = after(start, edits.setInletValue({ node: 'lambert', inlet: 'base' }, [1, 0, 0], 'Colour'));
    expect(set.surface.nodes['lambert']?.values).toEqual({ base: [1, 0, 0] });
    expect(after(set, edits.resetInletValue({ node: 'lambert', inlet: 'base' }, 'Colour')).surface.nodes['lambert']?.values).toEqual({});
  });

  it('keep a parameter as long as a node reads it', () => {
    const node = { kind: 'parameter', rev: 1, x: 0, y: 0, values: {} };
    const parameter = { name: 'Glow', type: 'number', value: 0.5, order: 0 } as const;
    const one = after(start, addParameter('p', parameter, 'a', node));
    const two = after(one, { changes: [{ path: ['surface', 'nodes', 'b'], value: { ...node, parameter: 'p' } }] });
    expect(after(two, edits.remove(two, ['a'])).parameters['p']).toEqual(parameter);
    expect(after(two, edits.remove(two, ['a', 'b'])).parameters['p']).toBeUndefined();
    expect(after(one, setParameter('p', 'value', 0.7)).parameters['p']?.value).toBe(0.7);
  });

  it('can be one step together', () => {
    const edit = joinEdits('Both', edits.disconnect({ node: 'dock', inlet: 'colour' }), edits.remove(start, ['lambert']));
    expect(edit.label).toBe('Both');
    expect(Object.keys(after(start, edit).surface.nodes)).toEqual(['colour']);
  });

  it('take bends along with both ends, and leave them with one', () => {
    const bent = after(start, edits.setBends({ node: 'lambert', inlet: 'base' }, [[200.4, 100]]));
    expect(bent.surface.ribbons['lambert.base']?.bends as object).toEqual([[200, 100]]);
    const both = after(bent, edits.move(bent, ['colour', 'lambert'], 10, 5));
    expect(both.surface.ribbons['lambert.base']?.bends as object).toEqual([[210, 105]]);
    const one = after(bent, edits.move(bent, ['colour'], 10, 5));
    expect(one.surface.ribbons['lambert.base']?.bends as object).toEqual([[200, 100]]);
    expect(after(bent, edits.setBends({ node: 'lambert', inlet: 'base' }, [])).surface.ribbons['lambert.base']?.bends).toBeUndefined();
  });

  it('move and remove areas and notes as they do nodes', () => {
    const box = { x: 0, y: 0, width: 200, height: 100 };
    const put = after(start, edits.putArea('a', { title: 'Skin', ...box }), edits.putNote('n', { text: 'warm', ...box }));
    const moved = after(put, edits.move(put, ['a', 'n'], 10, 20));
    expect([moved.surface.areas['a']?.x, moved.surface.notes['n']?.y]).toEqual([10, 20]);
    const gone = after(moved, edits.remove(moved, ['a', 'n']));
    expect([Object.keys(gone.surface.areas), Object.keys(gone.surface.notes)]).toEqual([[], []]);
  });

  it('switch features on and off; ribbons into what goes with one go too, and values stay', () => {
    const node = { kind: 'physicalSurface', rev: 1, x: 0, y: 0, values: { coat: 0.4 } };
    const inletsWith = (on: readonly string[]): string[] => ['baseColour', ...(on.includes('hasCoat') ? ['coat'] : [])];
    const flip = (material: Material, name: string): Material =>
      after(material, edits.switchFeature(material, 's', inletsWith, name, 'coat'));
    const coated = flip(after(start, edits.addNode('s', node, 'Surface')), 'hasCoat');
    expect(coated.surface.nodes['s']?.features).toEqual(['hasCoat']);
    const wired = after(
      coated,
      edits.connect({ node: 'colour', outlet: 'result' }, { node: 's', inlet: 'coat' }),
      edits.connect({ node: 'colour', outlet: 'result' }, { node: 's', inlet: 'baseColour' }),
    );
    const bare = flip(wired, 'hasCoat');
    expect([bare.surface.nodes['s']?.features, bare.surface.nodes['s']?.values]).toEqual([undefined, { coat: 0.4 }]);
    expect(Object.keys(bare.surface.ribbons).filter((key) => key.startsWith('s.'))).toEqual(['s.baseColour']);
    expect(flip(flip(wired, 'hasSheen'), 'hasCoat').surface.nodes['s']?.features).toEqual(['hasSheen']);
  });

  it('keep values under a name, and bring them back', () => {
    const parameter = { name: 'Glow', type: 'number', value: 0.5, order: 0 } as const;
    const one = after(start, addParameter('p', parameter, 'a', { kind: 'parameter', rev: 1, x: 0, y: 0, values: {} }));
    const kept = after(one, keepVariant(one, 'v', 'Dim'));
    const bright = after(kept, setParameter('p', 'value', 2));
    const variant = bright.variants['v'];
    expect(variant && after(bright, applyVariant(bright, variant)).parameters['p']?.value).toBe(0.5);
    const without = after(bright, edits.remove(bright, ['a']));
    expect(variant && applyVariant(without, variant).changes).toEqual([]);
  });
});
