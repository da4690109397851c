import type { Change } from '@brelvin/contract';
import { applyChanges, condense, invertChanges, UnfitChange } from './transaction';

const document = { name: 'a', nodes: { one: { x: 1, y: 2 }, two: { x: 3, y: 4 } }, list: [1, 2] };

describe('applyChanges', () => {
  it('sets, adds and removes', () => {
    const next = applyChanges(document, [
      { path: ['name'], value: 'b' },
      { path: ['nodes', 'three'], value: { x: 5, y: 6 } },
      { path: ['nodes', 'one'] },
    ]);
    expect(next).toEqual({ name: 'b', nodes: { two: { x: 3, y: 4 }, three: { x: 5, y: 6 } }, list: [1, 2] } as never);
  });

  it('shares what it leaves alone, and gives the same document when nothing changes', () => {
    const next = applyChanges(document, [{ path: ['nodes', 'one', 'x'], value: 9 }]);
    expect(next.nodes.two).toBe(document.nodes.two);
    expect(next.list).toBe(document.list);
    expect(applyChanges(document, [{ path: ['name'], value: 'a' }, { path: ['nowhere'] }])).toBe(document);
  });

  it('refuses paths that lead nowhere', () => {
    expect(() => applyChanges(document, [{ path: ['nodes', 'none', 'x'], value: 1 }])).toThrowError(
      UnfitChange,
      'there is nothing at nodes.none',
    );
    expect(() => applyChanges(document, [{ path: ['name', 'x'], value: 1 }])).toThrowError(UnfitChange);
    expect(() => applyChanges(document, [{ path: ['list', '0'], value: 1 }])).toThrowError(UnfitChange);
    expect(() => applyChanges(document, [{ path: [], value: 1 }])).toThrowError(UnfitChange);
  });

  it('never reaches what objects inherit', () => {
    expect(() => applyChanges(document, [{ path: ['constructor', 'prototype', 'evil'], value: 1 }])).toThrowError(UnfitChange);
    applyChanges(document, [{ path: ['__proto__'], value: { evil: 1 } }]);
    expect(({} as Record<string, unknown>)['evil']).toBeUndefined();
  });
});

describe('invertChanges', () => {
  it('leads back, also through changes of the same place', () => {
    const changes: Change[] = [
      { path: ['nodes', 'new'], value: { x: 0, y: 0 } },
      { path: ['nodes', 'new', 'x'], value: 7 },
      { path: ['nodes', 'one'] },
      { path: ['name'], value: 'c' },
    ];
    const after = applyChanges(document, changes);
    expect(applyChanges(after, invertChanges(document, changes))).toEqual(document);
  });

  it('keeps what stood there when the same object changes again', () => {
    const changes: Change[] = [
      { path: ['nodes', 'one', 'x'], value: 5 },
      { path: ['spare'], value: { deep: { x: 1 } } },
      { path: ['spare', 'deep', 'x'], value: 2 },
      { path: ['nodes', 'one'], value: { x: 6, y: 6 } },
      { path: ['spare'], value: { deep: { x: 3 } } },
      { path: ['nodes', 'one', 'x'], value: 7 },
      { path: ['spare', 'deep'] },
    ];
    const given = JSON.stringify(changes);
    const after = applyChanges(document, changes);
    expect(after as object).toEqual({ ...document, nodes: { ...document.nodes, one: { x: 7, y: 6 } }, spare: {} });
    expect(JSON.stringify(changes)).withContext('what is put in is not written to').toBe(given);
    const back = invertChanges(document, changes);
    const kept = JSON.stringify(back);
    expect(applyChanges(after, back)).toEqual(document);
    expect(JSON.stringify(back)).toBe(kept);
  });
});

describe('invertChanges of changes that lie apart', () => {
  const changes: Change[] = [
    { path: ['nodes', 'one', 'x'], value: 5 },
    { path: ['nodes', 'two'] },
    { path: ['nodes', 'new'], value: { x: 0, y: 0 } },
    { path: ['name'], value: 'a' },
  ];

  it('leads back, and leaves out nothing', () => {
    expect(invertChanges(document, changes) as object).toEqual([
      { path: ['name'], value: 'a' },
      { path: ['nodes', 'new'] },
      { path: ['nodes', 'two'], value: { x: 3, y: 4 } },
      { path: ['nodes', 'one', 'x'], value: 1 },
    ]);
    expect(applyChanges(applyChanges(document, changes), invertChanges(document, changes))).toEqual(document);
  });

  it('refuses what applying refuses', () => {
    for (const path of [['nodes', 'none', 'x'], ['name', 'x'], ['list', '0'], [], ['constructor', 'prototype', 'evil']]) {
      const wrong = [
        { path: ['name'], value: 'b' },
        { path, value: 1 },
      ];
      expect(() => invertChanges(document, wrong)).toThrowError(UnfitChange);
      expect(() => applyChanges(document, wrong)).toThrowError(UnfitChange);
    }
  });
});

describe('condense', () => {
  it('keeps the last change of a place', () => {
    expect(
      condense([
        { path: ['a'], value: 1 },
        { path: ['b'], value: 2 },
        { path: ['a'], value: 3 },
      ]) as object,
    ).toEqual([
      { path: ['b'], value: 2 },
      { path: ['a'], value: 3 },
    ]);
  });

  it('keeps the order where one change lies inside another', () => {
    const changes: Change[] = [
      { path: ['a'], value: { b: 1 } },
      { path: ['a', 'b'], value: 2 },
      { path: ['a'], value: { b: 3 } },
    ];
    expect(condense(changes) as object).toEqual(changes);
  });
});
