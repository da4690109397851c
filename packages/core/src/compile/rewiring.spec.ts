import { library } from '../catalogue/library';
import { countingIds, edited, materialOf, ribbonsOf, typed } from '../testing/graphs';
import { insertIntoRibbon, isLoose, lostBySwap, promote, removeHealed, swapKind, unusedNodes } from './rewiring';

const kind = (id: string): NonNullable<ReturnType<ReturnType<typeof library>['kinds']['get']>> => library().kinds.get(id)!;

const chain = materialOf(
  { c: 'colour', m: 'multiply', n: 'multiply', l: 'lambert', idle: 'sine' },
  { 'm.a': 'c', 'n.a': 'm', 'l.base': 'n', 'dock.colour': 'l' },
);

describe('Deleting with healing', () => {
  it('closes the gap a node leaves', () => {
    expect(ribbonsOf(edited(chain, removeHealed(typed(chain), new Set(['m']))).surface)).toContain('n.a ← c.result');
  });

  it('closes it over several nodes in a row', () => {
    const left = edited(chain, removeHealed(typed(chain), new Set(['m', 'n'])));
    expect(ribbonsOf(left.surface)).toEqual(['dock.colour ← l.result', 'l.base ← c.result']);
  });

  it('leaves a gap where nothing fits', () => {
    const material = materialOf({ u: 'uv', s: 'split', r: 'rim' }, { 's.value': 'u', 'r.strength': 's.x', 'dock.colour': 'r' });
    expect(ribbonsOf(edited(material, removeHealed(typed(material), new Set(['s']))).surface)).toEqual(['dock.colour ← r.result']);
  });

  it('takes everything away when everything is chosen', () => {
    const empty = edited(chain, removeHealed(typed(chain), new Set(Object.keys(chain.surface.nodes))));
    expect([Object.keys(empty.surface.nodes), ribbonsOf(empty.surface)]).toEqual([[], []]);
  });
});

describe('Dropping a node on a ribbon', () => {
  it('runs the ribbon through it, by the inlet and outlet that fit', () => {
    const with_ = {
      ...chain,
      surface: { ...chain.surface, nodes: { ...chain.surface.nodes, x: { kind: 'mix', rev: 1, x: 0, y: 0, values: {} } } },
    };
    const next = edited(with_, insertIntoRibbon(typed(with_), { node: 'l', inlet: 'base' }, 'x', kind('mix')));
    expect(ribbonsOf(next.surface)).toContain('l.base ← x.result');
    expect(ribbonsOf(next.surface)).toContain('x.a ← n.result');
  });

  it('is left alone where it does not fit, and where there is no ribbon', () => {
    expect(insertIntoRibbon(typed(chain), { node: 'l', inlet: 'base' }, 'idle', kind('uv'))).toBeUndefined();
    expect(insertIntoRibbon(typed(chain), { node: 'm', inlet: 'b' }, 'idle', kind('sine'))).toBeUndefined();
    expect(isLoose(typed(chain), 'idle')).toBeTrue();
    expect(isLoose(typed(chain), 'm')).toBeFalse();
  });
});

describe('Swapping a node', () => {
  it('keeps ribbons and values of the same name, then those that fit', () => {
    const material = materialOf({ c: 'colour', b: ['bands', { count: 5, floor: 0.3 }] }, { 'b.base': 'c', 'dock.colour': 'b' });
    const next = edited(material, swapKind(typed(material), 'b', kind('lambert')));
    expect(next.surface.nodes['b']?.kind).toBe('lambert');
    expect(ribbonsOf(next.surface)).toEqual(['b.base ← c.result', 'dock.colour ← b.result']);
    expect(next.surface.nodes['b']?.values).toEqual({});
    const power = materialOf({ t: 'time', p: ['power', { a: 2, b: 3 }] }, { 'p.b': 't', 'dock.colour': 'p' });
    const step = edited(power, swapKind(typed(power), 'p', kind('smoothstep')));
    expect(ribbonsOf(step.surface)).toEqual(['dock.colour ← p.result', 'p.low ← t.result']);
  });

  it('says before how many ribbons a kind lets go', () => {
    const material = materialOf({ l: 'lambert', n: 'number', s: 'multiply' }, { 's.a': 'l', 's.b': 'n', 'dock.colour': 's' });
    const lost = (id: string): number => lostBySwap(typed(material), 's', kind(id));
    expect([lost('add'), lost('uv'), lost('sine')]).toEqual([0, 2, 1]);
    for (const id of ['add', 'uv', 'sine', 'bands', 'split']) {
      const next = edited(material, swapKind(typed(material), 's', kind(id)));
      expect(ribbonsOf(material.surface).length - ribbonsOf(next.surface).length)
        .withContext(id)
        .toBe(lost(id));
    }
  });

  it('takes ribbons off that fit nowhere', () => {
    const material = materialOf({ l: 'lambert', s: 'multiply' }, { 's.a': 'l', 'dock.colour': 's' });
    const next = edited(material, swapKind(typed(material), 's', kind('uv')));
    expect(ribbonsOf(next.surface)).toEqual(['dock.colour ← s.result']);
  });
});

describe('Making a parameter of an inlet', () => {
  it('takes value, range, help and unit over, under a free name', () => {
    const material = materialOf({ b: ['bands', { count: 5 }] }, { 'dock.colour': 'b' });
    const made = promote(typed(material), { node: 'b', inlet: 'count' }, countingIds());
    const next = edited(material, made?.edit);
    const parameter = next.parameters[made?.parameter ?? ''];
    expect([parameter?.name, parameter?.value, parameter?.type]).toEqual(['Bands', 5, 'number']);
    expect(parameter?.high).toBe(kind('bands').inlets.find((spec) => spec.name === 'count')?.high);
    expect(ribbonsOf(next.surface).some((each) => each.startsWith('b.count ← '))).toBeTrue();
    const ids = countingIds();
    const second = promote(typed(next), { node: 'b', inlet: 'tint' }, () => `t${ids()}`);
    expect(edited(next, second?.edit).parameters[second?.parameter ?? '']?.type).toBe('colour');
  });

  it('takes a range that holds the value, whatever was typed', () => {
    const rangeOf = (value: number, inlet = 'b'): readonly (number | undefined)[] => {
      const material = materialOf({ m: ['multiply', { b: value }], n: ['valueNoise', { scale: value }] }, { 'dock.colour': 'm' });
      const made = promote(typed(material), inlet === 'b' ? { node: 'm', inlet } : { node: 'n', inlet }, countingIds());
      const { low, high } = edited(material, made?.edit).parameters[made?.parameter ?? '']!;
      return [low, high];
    };
    expect([rangeOf(0.3), rangeOf(1.2), rangeOf(37), rangeOf(-4), rangeOf(600)]).toEqual([
      [0, 1],
      [0, 2],
      [0, 50],
      [-5, 5],
      [0, 1000],
    ]);
    expect([rangeOf(4, 'scale'), rangeOf(70, 'scale')])
      .withContext('of an inlet with a range of its own')
      .toEqual([
        [0.1, 50],
        [0.1, 100],
      ]);
  });

  it('is not possible where a ribbon runs, or the surface gives the value', () => {
    expect(promote(typed(chain), { node: 'm', inlet: 'a' }, countingIds())).toBeUndefined();
    expect(promote(typed(chain), { node: 'l', inlet: 'normal' }, countingIds())).toBeUndefined();
  });
});

describe('Unused nodes', () => {
  it('are those that nothing carries to the dock', () => {
    expect([...unusedNodes(typed(chain))]).toEqual(['idle']);
  });
});
