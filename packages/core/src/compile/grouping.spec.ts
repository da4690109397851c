import type { Material } from '@brelvin/contract';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { library } from '../catalogue/library';
import { countingIds, edited, materialOf, ribbonsOf, typed } from '../testing/graphs';
import { addPort, makeGroup, mayContain, removePort, setPort, titleGroup, unmakeGroup } from './grouping';
import { GraphEdits } from '../document/graph-edits';
import { groupKind, kindOfNode, titleOfNode } from './group-kind';
import { resolveGraph, type ResolvedGraph } from './resolve';
import { isStructural, sameStructure } from './structural';

/** colour → multiply → lambert → dock, with a number into the product. */
const start = materialOf(
  { c: ['colour', { value: [0.5, 0.25, 0.125] }], k: 'sine', m: 'multiply', l: 'lambert' },
  { 'm.a': 'c', 'm.b': 'k', 'l.base': 'm', 'dock.colour': 'l' },
);

function grouped(): { material: Material; node: string; group: string } {
  const made = makeGroup(typed(start), new Set(['m', 'l']), countingIds());
  const material = edited(start, made?.edit);
  const node = made?.node ?? '';
  return { material, node, group: material.surface.nodes[node]?.group ?? '' };
}

const program = (material: Material): string => {
  const { compiled, problems } = compileFor(GLSL_TARGET, material);
  expect(problems).toEqual([]);
  return compiled?.program.fragment.text ?? '';
};

describe('Groups', () => {
  it('are made of a selection: what ran in and out runs through ports, named after where it goes', () => {
    const { material, node, group } = grouped();
    expect(Object.keys(material.surface.nodes).sort()).toEqual(['c', 'k', node].sort());
    const made = material.groups[group];
    expect(Object.values(made?.inlets ?? {}).map(({ label, type }) => `${label} ${type}`)).toEqual(['A colour', 'B number']);
    expect(Object.values(made?.outlets ?? {}).map(({ label, type }) => `${label} ${type}`)).toEqual(['Light light']);
    expect(ribbonsOf(made!.graph)).toEqual(['dock.p1 ← l.result', 'l.base ← m.result', 'm.a ← entry.p1', 'm.b ← entry.p2']);
    expect(ribbonsOf(material.surface)).toEqual([`dock.colour ← ${node}.p1`, `${node}.p1 ← c.result`, `${node}.p2 ← k.result`]);
  });

  it('compile to the very program they were made of', () => {
    expect(program(grouped().material)).toBe(program(start));
  });

  it('can be unmade: the same program again, and nothing left of the group', () => {
    const { material, node } = grouped();
    const ids = countingIds();
    const apart = edited(material, unmakeGroup(typed(material), node, () => `u${ids()}`)?.edit);
    expect(apart.groups).toEqual({});
    expect(
      Object.values(apart.surface.nodes)
        .map((each) => each.kind)
        .sort(),
    ).toEqual(['colour', 'lambert', 'multiply', 'sine']);
    expect(program(apart)).toBe(program(start));
  });

  it('stand in several places; each unfolds, and shares the numbers inside', () => {
    const { material, group } = grouped();
    const twice = edited(material, {
      label: '',
      changes: [
        new GraphEdits().putNode('again', { kind: 'group', rev: 1, group, x: 0, y: 0, values: {} }),
        ...new GraphEdits().connect({ node: 'again', outlet: 'p1' }, { node: 'dock', inlet: 'emission' }).changes,
      ],
    });
    const { compiled } = compileFor(GLSL_TARGET, twice);
    const inside = compiled?.slots.filter(({ source }) => source.from === 'inlet' && source.home.group === group) ?? [];
    expect(inside.length).toBeGreaterThan(0);
    expect(new Set(inside.map(({ source }) => JSON.stringify(source))).size).toBe(inside.length);
  });

  it('nest', () => {
    const { material, node } = grouped();
    const ids = countingIds();
    const outer = edited(material, makeGroup(typed(material), new Set([node, 'k']), () => `o${ids()}`)?.edit);
    expect(program(outer)).toBe(program(start));
    expect(Object.keys(outer.groups).length).toBe(2);
  });

  it('leave what is inside open where nothing runs in, unless a value is typed', () => {
    const { material, node, group } = grouped();
    const open = edited(material, new GraphEdits().disconnect({ node, inlet: 'p2' }));
    expect(compileFor(GLSL_TARGET, open).problems).toEqual([]);
    const valued = edited(open, new GraphEdits().setInletValue({ node, inlet: 'p2' }, 0.5, 'B'));
    const { compiled } = compileFor(GLSL_TARGET, valued);
    expect(compiled?.slots.some(({ source }) => source.from === 'inlet' && source.home.node === node && source.inlet === 'p2')).toBeTrue();
    const fixed = edited(open, setPort(group, 'inlets', 'p2', 'value', 0.25));
    expect(
      compileFor(GLSL_TARGET, fixed).compiled?.slots.some(({ source }) => source.from === 'inlet' && source.home.node === node),
    ).toBeTrue();
  });

  it('look like nodes from outside, with their own title and types', () => {
    const { material, node, group } = grouped();
    const instance = resolveGraph(material, library()).instances.get(node);
    expect(instance?.inlets.map(({ spec, type }) => [spec.label, type])).toEqual([
      ['A', 'colour'],
      ['B', 'number'],
    ]);
    expect(instance?.outlets).toEqual({ p1: 'light' });
    const titled = edited(material, titleGroup(group, 'Skin'));
    expect(titleOfNode(library(), titled, titled.surface.nodes[node]!)).toBe('Skin');
    expect(kindOfNode(library(), titled, titled.surface.nodes[node]!)).toBe(groupKind(library(), titled.groups[group]!));
    expect(typed(material, group, `${node}/`).outletType({ node: 'm', outlet: 'result' })).toBe('colour');
    expect(typed(material, group, `${node}/`).outletType({ node: 'entry', outlet: 'p2' })).toBe('number');
  });

  it('that contain themselves, or are gone, are said and left out', () => {
    const { material, node, group } = grouped();
    const inside = new GraphEdits(group).putNode('self', { kind: 'group', rev: 1, group, x: 0, y: 0, values: {} });
    const circular = edited(material, { label: '', changes: [inside] });
    expect(compileFor(GLSL_TARGET, circular).problems[0]?.message).toContain('contains itself');
    const gone = edited(material, { label: '', changes: [{ path: ['groups', group] }] });
    expect(compileFor(GLSL_TARGET, gone).problems.map(({ node: at, message }) => [at, message])[0]).toEqual([
      node,
      jasmine.stringContaining('is gone'),
    ]);
    expect(mayContain(material, new GraphEdits(group), group)).toBeFalse();
    expect(mayContain(material, new GraphEdits(), group)).toBeTrue();
  });

  it('unfold no further than a bound', () => {
    // Each group holds the one before it twice: 2 to the 20 at the end.
    let material = grouped().material;
    let group = Object.keys(material.groups)[0] ?? '';
    for (let depth = 0; depth < 20; depth++) {
      const node = { kind: 'group', rev: 1, group, x: 0, y: 0, values: {} };
      const next = `deep${depth}`;
      const made = {
        title: next,
        help: '',
        inlets: {},
        outlets: {},
        graph: { nodes: { a: node, b: node }, ribbons: {}, areas: {}, notes: {} },
      };
      material = edited(material, { label: '', changes: [{ path: ['groups', next], value: made }] });
      group = next;
    }
    const top = new GraphEdits().putNode('top', { kind: 'group', rev: 1, group, x: 0, y: 0, values: {} });
    const { problems } = compileFor(GLSL_TARGET, edited(material, { label: '', changes: [top] }));
    expect(problems[0]?.message).toContain('more than 50000 nodes');
  });

  it('gain and lose ports, with the ribbons at them', () => {
    const { material, node, group } = grouped();
    const wider = edited(material, addPort(material, group, 'inlets', 'q', 'number', 'Extra'));
    expect(wider.groups[group]?.inlets['q']).toEqual({ label: 'Extra', type: 'number', order: 2 });
    const narrower = edited(material, removePort(material, group, 'inlets', 'p2'));
    expect(ribbonsOf(narrower.surface)).not.toContain(`${node}.p2 ← k.result`);
    expect(ribbonsOf(narrower.groups[group]!.graph)).not.toContain('m.b ← entry.p2');
    const blind = edited(material, removePort(material, group, 'outlets', 'p1'));
    expect(ribbonsOf(blind.surface)).not.toContain(`dock.colour ← ${node}.p1`);
  });

  it('ask for another program only when their structure changes', () => {
    const { material, group } = grouped();
    const value = new GraphEdits(group).setInletValue({ node: 'm', inlet: 'b' }, 2, 'B');
    expect(isStructural(value.changes)).toBeFalse();
    expect(sameStructure(material, edited(material, value))).toBeTrue();
    expect(isStructural(titleGroup(group, 'Skin').changes)).toBeFalse();
    expect(isStructural(setPort(group, 'inlets', 'p1', 'label', 'Base').changes)).toBeFalse();
    const rewired = new GraphEdits(group).disconnect({ node: 'm', inlet: 'b' });
    expect(isStructural(rewired.changes)).toBeTrue();
    expect(sameStructure(material, edited(material, rewired))).toBeFalse();
    expect(isStructural(new GraphEdits().putArea('a', { title: '', x: 0, y: 0, width: 1, height: 1 }).changes)).toBeFalse();
    expect(isStructural(new GraphEdits().setBends({ node: 'm', inlet: 'a' }, [[1, 2]]).changes)).toBeFalse();
  });
});

describe('Resolving again', () => {
  it('takes over what stands as it stood, and only that', () => {
    const before = resolveGraph(start, library());
    const moved = edited(start, new GraphEdits().disconnect({ node: 'm', inlet: 'b' }));
    const again = resolveGraph(moved, library(), before);
    expect(again.nodes.get('c')).toBe(before.nodes.get('c'));
    expect(again.nodes.get('m')).not.toBe(before.nodes.get('m'));
    expect(described(again)).toEqual(described(resolveGraph(moved, library())));
  });

  it('gives at every step of a long work what resolving afresh gives', () => {
    let material = start;
    let known = resolveGraph(material, library());
    const kinds = ['add', 'colour', 'mix', 'bands', 'split', 'uv'];
    for (let count = 0; count < 120; count++) {
      const ids = Object.keys(material.surface.nodes);
      const target = ids[(count * 7) % ids.length] ?? 'm';
      const edit =
        count % 11 === 10
          ? new GraphEdits().remove(material, [target])
          : count % 3 === 0
            ? new GraphEdits().addNode(`x${count}`, { kind: kinds[count % kinds.length] ?? 'add', rev: 1, x: 0, y: 0, values: {} }, '')
            : new GraphEdits().connect(
                { node: ids[(count * 5) % ids.length] ?? 'c', outlet: 'result' },
                { node: target, inlet: count % 2 ? 'a' : 'base' },
              );
      material = edited(material, edit);
      known = resolveGraph(material, library(), known);
      const afresh = resolveGraph(material, library());
      expect(described(known)).toEqual(described(afresh));
      const place = new Map([...known.nodes.keys()].map((id, index) => [id, index]));
      for (const [id, node] of known.nodes) {
        for (const { ribbon } of node.inlets) {
          if (ribbon)
            expect(place.get(ribbon.from))
              .withContext(`${ribbon.from} before ${id}`)
              .toBeLessThan(place.get(id) ?? -1);
        }
      }
    }
  });
});

describe('Resolving again when a node stands for another group', () => {
  it('finds the values where they stand now', () => {
    const { material, node, group } = grouped();
    const both = edited(material, {
      label: '',
      changes: [{ path: ['groups', 'other'], value: material.groups[group] }],
    });
    const known = resolveGraph(both, library());
    const swapped = edited(both, { label: '', changes: [{ path: ['surface', 'nodes', node, 'group'], value: 'other' }] });
    expect(known.nodes.get(`${node}/m`)?.home.group).toBe(group);
    expect(resolveGraph(swapped, library(), known).nodes.get(`${node}/m`)?.home.group).toBe('other');
  });
});

describe('Resolving again what goes wrong in between', () => {
  const kinds = ['add', 'colour', 'mix', 'parameter', 'thisLight', 'pointer', 'nothingLikeIt', 'sine', 'group'];

  for (const seed of [1, 2, 3]) {
    it(`gives what resolving afresh gives, from seed ${seed}`, () => {
      let turn = seed * 7919;
      const random = (below: number): number => (turn = (turn * 16807) % 2147483647) % below;
      const past: Material[] = [grouped().material];
      let known: ResolvedGraph | undefined;
      for (let count = 0; count < 80; count++) {
        const material = past.at(-1) ?? start;
        const ids = Object.keys(material.surface.nodes);
        const any = (): string => ids[random(ids.length)] ?? 'c';
        const kind = kinds[random(kinds.length)] ?? 'add';
        const node = { kind, rev: 1, x: 0, y: 0, values: {}, ...(kind === 'group' && { group: Object.keys(material.groups)[0] }) };
        const edits = [
          () => new GraphEdits().addNode(`x${count}`, node, ''),
          () => new GraphEdits().remove(material, [any()]),
          () =>
            new GraphEdits().connect({ node: any(), outlet: 'result' }, { node: any(), inlet: ['a', 'b', 'base', 'p1'][random(4)] ?? 'a' }),
          // As another window may leave it: a kind changes, ribbons stay; a node goes, its ribbons do not.
          () => ({ label: '', changes: [{ path: ['surface', 'nodes', any(), 'kind'], value: kind === 'group' ? 'add' : kind }] }),
          () => ({ label: '', changes: [{ path: ['surface', 'nodes', any()] }] }),
        ];
        const back = count > 10 && random(6) === 0;
        past.push(back ? (past[random(past.length)] ?? start) : edited(material, edits[ids.length < 3 ? 0 : random(edits.length)]?.()));
        const now = past.at(-1) ?? start;
        known = resolveGraph(now, library(), known);
        expect(described(known)).toEqual(described(resolveGraph(now, library())));
      }
    });
  }
});

/** What a result says, whatever the order in which it was found. */
function described({ nodes, instances, dock, problems }: ResolvedGraph): object {
  const sorted = (all: ResolvedGraph['nodes']): object[] =>
    [...all].sort(([a], [b]) => a.localeCompare(b)).map(([id, { outlets, inlets }]) => [id, outlets, inlets]);
  return { nodes: sorted(nodes), instances: sorted(instances), dock, problems: problems.map((each) => JSON.stringify(each)).sort() };
}
