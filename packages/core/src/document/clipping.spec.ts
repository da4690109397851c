import type { Material } from '@brelvin/contract';
import { countingIds, edited, materialOf, ribbonsOf } from '../testing/graphs';
import { clip, duplicate, ForeignClipping, parseClipping, paste } from './clipping';
import { GraphEdits } from './graph-edits';
import { newMaterial } from './new-documents';

const surface = new GraphEdits();
const image = {
  name: 'Label',
  asset: 'a'.repeat(64),
  width: 2,
  height: 2,
  role: 'colour',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
} as const;

function start(): Material {
  const material = materialOf({ c: 'colour', p: 'parameter', m: 'multiply', l: 'lambert' }, { 'm.a': 'c', 'm.b': 'p', 'l.base': 'm' });
  return {
    ...material,
    parameters: { p: { name: 'Dim', type: 'number', value: 0.5, order: 0 } },
    surface: {
      ...material.surface,
      nodes: { ...material.surface.nodes, i: { kind: 'image', rev: 1, x: 0, y: 0, values: {}, image: 'pic' } },
      areas: { a: { title: 'Skin', x: 0, y: 0, width: 100, height: 100 } },
    },
    images: { pic: image },
  };
}

describe('Copy and paste', () => {
  it('carry nodes with the ribbons between them, and all that they read', () => {
    const clipping = clip(start(), surface, new Set(['c', 'm', 'p', 'i', 'a']));
    expect(ribbonsOf(clipping as never)).toEqual(['m.a ← c.result', 'm.b ← p.result']);
    expect([Object.keys(clipping.parameters), Object.keys(clipping.images), Object.keys(clipping.areas)]).toEqual([['p'], ['pic'], ['a']]);
  });

  it('give fresh ids in another material, and bring parameters and images along', () => {
    const text = JSON.stringify(clip(start(), surface, new Set(['c', 'm', 'p', 'i', 'a'])));
    const { edit, names } = paste(newMaterial('Other'), surface, parseClipping(text), { newId: countingIds(), dx: 10, dy: 5 });
    const next = edited(newMaterial('Other'), edit);
    expect(next.parameters['p']?.name).toBe('Dim');
    expect(next.images['pic']?.name).toBe('Label');
    expect(ribbonsOf(next.surface)).toContain(`${names.get('m')}.a ← ${names.get('c')}.result`);
    expect(next.surface.nodes[names.get('m') ?? '']?.x).toBe(410);
    expect(next.surface.areas[names.get('a') ?? '']?.y).toBe(5);
  });

  it('use what is already there again, and rename what only has the same id', () => {
    const material = start();
    const clipping = clip(material, surface, new Set(['p', 'i']));
    const twice = edited(material, paste(material, surface, clipping, { newId: countingIds(), dx: 0, dy: 0 }).edit);
    expect([Object.keys(twice.parameters), Object.keys(twice.images)]).toEqual([['p'], ['pic']]);
    const other: Material = { ...newMaterial('x'), images: { pic: { ...image, asset: 'b'.repeat(64) } } };
    const { edit, names } = paste(other, surface, clipping, { newId: countingIds(), dx: 0, dy: 0 });
    const next = edited(other, edit);
    const read = next.surface.nodes[names.get('i') ?? '']?.image ?? '';
    expect(read).not.toBe('pic');
    expect(next.images[read]?.asset).toBe('a'.repeat(64));
  });

  it('duplicate with the ribbons that run in', () => {
    const material = start();
    const { edit, names } = duplicate(material, surface, new Set(['m']), countingIds());
    expect(ribbonsOf(edited(material, edit).surface)).toEqual(
      [...ribbonsOf(material.surface), `${names.get('m')}.a ← c.result`, `${names.get('m')}.b ← p.result`].sort(),
    );
  });

  const foreign: readonly (readonly [string, string, RegExp])[] = [
    ['a poem', 'The tern flies low', /not nodes/],
    ['other JSON', '{"nodes": 5}', /no nodes that can be read/],
    ['a list', '[1, 2]', /must be an object/],
    [
      'a trap in the ids',
      '{"format":"brelvin-nodes","version":1,"nodes":{"__proto__":{}},"ribbons":{},"areas":{},"notes":{},"parameters":{},"groups":{},"images":{}}',
      /not allowed/,
    ],
    ['a newer version', '{"format":"brelvin-nodes","version":9}', /version must be 1/],
  ];
  for (const [what, text, words] of foreign) {
    it(`refuse ${what}`, () => expect(() => parseClipping(text)).toThrowError(ForeignClipping, words));
  }

  it('drop ribbons that hang in the air, and never put a group into itself', () => {
    const clipping = { ...clip(start(), surface, new Set(['m'])), ribbons: { 'm.a': { from: 'gone', outlet: 'result' } } };
    const { edit } = paste(newMaterial('x'), surface, clipping, { newId: countingIds(), dx: 0, dy: 0 });
    expect(Object.keys(edited(newMaterial('x'), edit).surface.ribbons)).not.toContain('i0.a');
    const group = { title: 'G', help: '', inlets: {}, outlets: {}, graph: { nodes: {}, ribbons: {}, areas: {}, notes: {} } };
    const node = { kind: 'group', rev: 1, group: 'g', x: 0, y: 0, values: {} };
    const material: Material = { ...newMaterial('x'), groups: { g: group }, surface: { ...newMaterial('x').surface, nodes: { n: node } } };
    const own = clip(material, surface, new Set(['n']));
    expect(() => paste(material, new GraphEdits('g'), own, { newId: countingIds(), dx: 0, dy: 0 })).toThrowError(
      ForeignClipping,
      /inside itself/,
    );
  });
});
