import type { Graph, GraphNode, InletValue, MaterialParameter } from '@brelvin/contract';
import { compileFor, type EmittedMaterial } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { THIS_LIGHT_KIND } from '../catalogue/kind';
import { library } from '../catalogue/library';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { demoLibrary } from '../demo/demo-library';
import { EMPTY_GRAPH } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import { setParameter } from '../document/material-edits';
import type { MaterialSource } from '../document/material';
import { newMaterial } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import type { Value } from '../ir/value';
import { oneLight } from '../testing/call-shader';
import { writeMaterialValues } from './material-values';
import { MATERIAL_WORDS, slotNumbers } from './slots';
import { isStructural, sameStructure } from './structural';
import { FLOAT, VEC3, VEC4 } from '../ir/types';

type Compilable = MaterialSource;

function graph(
  nodes: Record<string, string | [string, Record<string, InletValue>]>,
  ribbons: Record<string, string>,
  parameters: Record<string, MaterialParameter> = {},
): Compilable {
  const surface: Graph = {
    ...EMPTY_GRAPH,
    nodes: Object.fromEntries(
      Object.entries(nodes).map(([id, node]): [string, GraphNode] => {
        const [kind, values] = typeof node === 'string' ? [node, {}] : node;
        return [id, { kind, rev: 1, x: 0, y: 0, values, ...(kind === 'parameter' ? { parameter: id } : {}) }];
      }),
    ),
    ribbons: Object.fromEntries(
      Object.entries(ribbons).map(([inlet, from]) => {
        const [node = '', outlet = 'result'] = from.split('.');
        return [inlet, { from: node, outlet }];
      }),
    ),
  };
  return { surface, parameters, groups: {}, images: {} };
}

function compiled(material: Compilable): EmittedMaterial {
  const result = compileFor(GLSL_TARGET, material);
  expect(result.problems).toEqual([]);
  if (!result.compiled) throw new Error('did not compile');
  return result.compiled;
}

const GLOBALS: ReadonlyMap<string, Value> = new Map<string, Value>([...oneLight([0, 1, 0], [4, 2, 1]), ['frameTime', [2]]]);

function values(material: Compilable, program = compiled(material)): Float32Array {
  const words = new Float32Array(program.blocks.find((block) => block.name === 'Material')?.words ?? 4);
  writeMaterialValues(program, material, GLOBALS, words);
  return words;
}

describe('compileMaterial: programs', () => {
  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material') continue;
    it(`compiles ${id}`, () => {
      const { problems, compiled } = compileFor(GLSL_TARGET, document, demoLibrary());
      expect(problems).toEqual([]);
      expect(compiled?.program.fragment.text).toContain('Lit paintSurface()');
    });
  }

  it('makes a lit picture of an empty graph', () => {
    expect(compiled(graph({}, {})).program.fragment.text).toContain('lambert(');
  });

  it('takes defaults for open inlets', () => {
    for (const kind of library().kinds.values()) {
      if (kind.overloads.length === 0 || kind.id === THIS_LIGHT_KIND) continue;
      const outlet = kind.outlets[0]?.name ?? 'result';
      // A gradient is no light: something reads it.
      const ribbons = kind.outlets[0]?.meaning === 'stops' ? { 'g.stops': 'n', 'dock.colour': 'g' } : { 'dock.colour': `n.${outlet}` };
      const { problems } = compileFor(GLSL_TARGET, graph({ n: kind.id, g: 'gradient' }, ribbons as Record<string, string>));
      expect(problems.map((problem) => problem.message))
        .withContext(kind.id)
        .toEqual([]);
    }
  });

  it('leaves out what does not reach the dock', () => {
    const text = compiled(graph({ a: 'lambert', idle: 'rim' }, { 'dock.colour': 'a' })).program.fragment.text;
    expect(text).not.toContain('rim(');
  });

  it('computes equal nodes once', () => {
    const material = graph(
      { u: 'uv', a: 'length', b: 'length', s: 'add' },
      { 'a.value': 'u', 'b.value': 'u', 's.a': 'a', 's.b': 'b', 'dock.colour': 's' },
    );
    expect(compiled(material).program.fragment.text.match(/lengthOf\(uv1\)/g)?.length).toBe(1);
  });

  it('has one key for one structure, whatever the numbers, places and names', () => {
    const one = compiled(graph({ b: ['bands', { count: 3 }] }, { 'dock.colour': 'b' }));
    const two = compiled(graph({ other: ['bands', { count: 7, tint: [1, 0, 0] }] }, { 'dock.colour': 'other' }));
    const three = compiled(graph({ b: 'lambert' }, { 'dock.colour': 'b' }));
    expect(one.key).toBe(two.key);
    expect(one.program.fragment.text).toBe(two.program.fragment.text);
    expect(one.key).not.toBe(three.key);
  });

  it('says which pieces move with the clock', () => {
    expect(compiled(graph({ t: 'time', s: 'sine' }, { 's.a': 't', 'dock.colour': 's' })).moves).toBeTrue();
    expect(compiled(graph({ t: 'time', s: 'lambert' }, { 'dock.colour': 's' })).moves).toBeFalse();
  });

  it('traces every line of a node back to it', () => {
    const { fragment } = compiled(graph({ mine: 'bands' }, { 'dock.colour': 'mine' })).program;
    const line = fragment.text.split('\n').findIndex((each) => each.includes('Lit bands1 = bands'));
    expect(fragment.lines[line]?.path).toBe('mine');
  });

  it('stays quick and whole with 5,000 nodes; what finds no room becomes part of the program', () => {
    const nodes: Record<string, string> = { u: 'uv', z: 'split' };
    const ribbons: Record<string, string> = { 'n0.a': 'u', 'dock.colour': 'z.x' };
    for (let index = 0; index < 5000; index++) {
      nodes[`n${index}`] = 'multiply';
      if (index > 0) ribbons[`n${index}.a`] = `n${index - 1}`;
    }
    ribbons['z.value'] = 'n4999';
    const program = compiled(graph(nodes, ribbons));
    expect(program.baked.length).toBeGreaterThan(0);
    expect(program.blocks.find((block) => block.name === 'Material')?.words).toBe(MATERIAL_WORDS);
    expect(
      isStructural(
        [{ path: ['surface', 'nodes', program.baked[0]!.home.node, 'values', program.baked[0]!.inlet], value: 1 }],
        program.baked,
      ),
    ).toBeTrue();
  });
});

describe('compileMaterial: numbers', () => {
  const start = graph({ b: ['bands', { count: 3 }] }, { 'dock.colour': 'b' });

  it('puts typed numbers where the program reads them', () => {
    const program = compiled(start);
    const slot = program.slots.find((each) => each.source.from === 'inlet' && each.source.inlet === 'count');
    expect(values(start, program)[slot?.offset ?? -1]).toBe(3);
    const six = applyChanges(start, new GraphEdits().setInletValue({ node: 'b', inlet: 'count' }, 6, 'Bands').changes);
    expect(values(six, program)[slot?.offset ?? -1]).toBe(6);
  });

  it('lets no two slots overlap, and no vector straddle a vec4', () => {
    const { slots } = compiled(
      graph({ g: 'gradient', b: 'bands', r: 'rim', a: 'add' }, { 'b.base': 'g', 'a.a': 'b', 'a.b': 'r', 'dock.colour': 'a' }),
    );
    const used = new Set<number>();
    for (const { offset, type } of slots) {
      const size = type.kind === 'array' ? type.length * 4 : type.kind === 'vector' ? type.size : 1;
      if (size > 1) expect((offset % 4) + Math.min(size, 4)).toBeLessThanOrEqual(4);
      for (let word = offset; word < offset + size; word++) {
        expect(used.has(word)).toBeFalse();
        used.add(word);
      }
    }
  });

  it('computes what is the same for all pixels once per frame, on the CPU', () => {
    const material = graph(
      { t: 'time', s: 'sine', m: ['multiply', { b: 3 }], l: 'lambert' },
      { 's.a': 't', 'm.a': 's', 'l.base': 'm', 'dock.colour': 'l' },
    );
    const program = compiled(material);
    expect(program.program.fragment.text).not.toContain('sin(');
    const slot = program.slots.find((each) => each.source.from === 'frame');
    expect(values(material, program)[slot?.offset ?? -1]).toBeCloseTo(Math.sin(2) * 3, 5);
  });

  it('computes with the sun on the CPU too', () => {
    const material = graph({ sun: 'sun', l: 'luminance', c: 'lambert' }, { 'l.value': 'sun.colour', 'c.base': 'l', 'dock.colour': 'c' });
    const program = compiled(material);
    const slot = program.slots.find((each) => each.source.from === 'frame');
    expect(values(material, program)[slot?.offset ?? -1]).toBeCloseTo(0.2126 * 4 + 0.7152 * 2 + 0.0722, 4);
  });

  it('reads parameters', () => {
    const parameter: MaterialParameter = { name: 'Glow', type: 'number', value: 0.25, order: 0 };
    const material = graph({ p: 'parameter', l: 'rim' }, { 'l.strength': 'p', 'dock.colour': 'l' }, { p: parameter });
    const program = compiled(material);
    const slot = program.slots.find((each) => each.source.from === 'parameter');
    expect(values(material, program)[slot?.offset ?? -1]).toBe(0.25);
    const changed = applyChanges(material, setParameter('p', 'value', 0.75).changes);
    expect(values(changed, program)[slot?.offset ?? -1]).toBe(0.75);
  });

  it('brings numbers to the size of their slot', () => {
    expect(slotNumbers(2, VEC3)).toEqual([2, 2, 2]);
    expect(slotNumbers([1, 2], VEC3)).toEqual([1, 2, 0]);
    expect(slotNumbers([1, 2, 3], FLOAT)).toEqual([1]);
    const stops = slotNumbers([1, 1, 1, 0, 0, 0, 0, 1], { kind: 'array', element: VEC4, length: 8 });
    expect(stops.length).toBe(32);
    expect(stops.slice(-4)).toEqual([0, 0, 0, 1]);
  });
});

describe('compileMaterial: rates', () => {
  it('tells how often each node runs', () => {
    const material = graph(
      { c: 'colour', t: 'time', s: 'sine', p: 'place', m: 'mix', l: 'lambert' },
      { 's.a': 't', 'm.a': 'p.y', 'm.b': 's', 'l.base': 'm', 'dock.colour': 'l', 'dock.emission': 'c' },
    );
    const { rates } = compileFor(GLSL_TARGET, material);
    expect(rates['c']).toBe('constant');
    expect(rates['s']).toBe('frame');
    expect(rates['p']).toBe('pixel');
    expect(rates['l']).toBe('pixel');
  });
});

describe('compileMaterial: problems', () => {
  const messages = (material: Compilable): string[] =>
    compileFor(GLSL_TARGET, material).problems.map(({ node, inlet, message }) => `${node}${inlet ? `.${inlet}` : ''}: ${message}`);

  it('names an unknown kind and the nearest one', () => {
    expect(messages(graph({ a: 'band' }, {}))).toEqual(['a: There is no kind of node called "band". The nearest is "bands".']);
  });

  it('asks for a newer Brelvin when a kind has a newer revision', () => {
    const material = graph({ a: 'bands' }, {});
    const newer = applyChanges(material, [{ path: ['surface', 'nodes', 'a', 'rev'], value: 4 }]);
    expect(messages(newer)[0]).toContain('"Bands" is wanted in revision 4');
  });

  it('shows the path of a circle', () => {
    const [problem = ''] = messages(graph({ a: 'add', b: 'sine' }, { 'a.a': 'b', 'b.a': 'a', 'dock.colour': 'a' }));
    expect(problem).toContain('run in a circle');
    expect(problem).toContain('Add');
    expect(problem).toContain('Sine');
  });

  it('says what to put between ends that do not fit', () => {
    expect(messages(graph({ u: 'uv', r: 'rim' }, { 'r.strength': 'u', 'dock.colour': 'r' }))).toEqual([
      'r.strength: This gives a pair of numbers, but a number is wanted. Put Split or Length between.',
    ]);
  });

  it('tells ribbons that hang in the air', () => {
    expect(messages(graph({ a: 'sine' }, { 'a.a': 'gone' }))[0]).toContain('comes from a node that is not there');
    expect(messages(graph({ a: 'sine', b: 'time' }, { 'a.a': 'b.left' }))[0]).toContain('"left", which its node does not have');
    expect(messages(graph({ a: 'sine', b: 'time' }, { 'a.nose': 'b' }))[0]).toContain('"nose", which this node does not have');
    expect(messages(graph({ b: 'time' }, { 'gone.a': 'b' }))[0]).toContain('not there');
    expect(messages(graph({ b: 'time' }, { 'dock.smell': 'b' }))[0]).toContain('the dock does not have');
  });

  it('tells a parameter that is gone', () => {
    expect(messages(graph({ p: 'parameter' }, {}))[0]).toContain('The parameter that this node reads is gone');
  });
});

describe('Gradients', () => {
  const stops: MaterialParameter = { name: 'Sky', type: 'stops', value: [1, 0, 0, 0, 0, 0, 1, 1], order: 0 };
  const through = { p: 'parameter', g: 'gradient' };
  const run = { 'g.stops': 'p', 'dock.colour': 'g' };

  it('of a parameter are read from the block, with as many stops as there are', () => {
    const material = graph(through, run, { p: stops });
    const words = values(material);
    expect([...words.slice(0, 8)]).toEqual([1, 0, 0, 0, 0, 0, 1, 1]);
    // Stops that are not there repeat the last one.
    expect([...words.slice(28, 32)]).toEqual([0, 0, 1, 1]);
  });

  it('whose colours are parameters are put together once per frame, and one colour changes no program', () => {
    const red: MaterialParameter = { name: 'Red', type: 'colour', value: [1, 0, 0], order: 0 };
    const material = graph(
      { p: 'parameter', m: 'gradientOfColours', y: 'place', g: 'gradient' },
      { 'm.first': 'p', 'g.at': 'y.y', 'g.stops': 'm', 'dock.colour': 'g' },
      { p: red },
    );
    const program = compiled(material);
    expect(program.program.fragment.text).not.toContain('gradientOfColours(');
    const slot = program.slots.find(({ source, type }) => source.from === 'frame' && type.kind === 'array');
    expect(slot).toBeDefined();
    expect([...values(material, program).slice(slot!.offset, slot!.offset + 4)]).toEqual([1, 0, 0, 0]);
    expect(compiled(applyChanges(material, [{ path: ['parameters', 'p', 'value'], value: [0, 1, 0] }])).key).toBe(program.key);
  });

  it('take no number: it is said what to put there', () => {
    const { problems } = compileFor(GLSL_TARGET, graph({ n: 'number', g: 'gradient' }, { 'g.stops': 'n', 'dock.colour': 'g' }));
    expect(problems[0]?.message).toContain('but a gradient is wanted: a parameter that is one, or Gradient of colours');
  });
});

describe('Factors', () => {
  const plain = graph({ c: 'place', s: 'physicalSurface' }, { 's.roughness': 'c.y', 's.baseColour': 'c.result', 'dock.colour': 's' });
  const mapped = graph({ c: 'place', s: 'physicalSurface' }, { 's.roughness': 'c.y', 's.metallic': 'c.x', 'dock.colour': 's' });
  const scaled = (factors: Record<string, InletValue>): Compilable =>
    applyChanges(mapped, [{ path: ['surface', 'nodes', 's', 'factors'], value: factors }]);

  it('multiply what a ribbon brings, by a number of the block', () => {
    const material = scaled({ roughness: 0.25 });
    const program = compiled(material);
    expect(program.program.fragment.text).not.toBe(compiled(mapped).program.fragment.text);
    expect([...values(material, program)]).toContain(0.25);
    expect(compiled(scaled({ roughness: 0.75 })).key).toBe(program.key);
  });

  it('of a colour have three numbers, and a single one spreads', () => {
    for (const factor of [[0.5, 0.25, 0.125], 0.5])
      expect(
        compileFor(GLSL_TARGET, applyChanges(plain, [{ path: ['surface', 'nodes', 's', 'factors'], value: { baseColour: factor } }]))
          .problems,
      ).toEqual(compileFor(GLSL_TARGET, plain).problems);
  });

  it('stand idle while nothing runs in', () => {
    const open = graph({ s: 'physicalSurface' }, { 'dock.colour': 's' });
    const idle = applyChanges(open, [{ path: ['surface', 'nodes', 's', 'factors'], value: { roughness: 0.25 } }]);
    expect(compiled(idle).key).toBe(compiled(open).key);
  });
});

describe('isStructural', () => {
  const material = newMaterial('m');
  it('is false for numbers, places and names', () => {
    expect(isStructural(new GraphEdits().setInletValue({ node: 'lambert', inlet: 'base' }, 1, '').changes)).toBeFalse();
    expect(
      isStructural([
        { path: ['surface', 'nodes', 'lambert', 'x'], value: 1 },
        { path: ['name'], value: 'n' },
      ]),
    ).toBeFalse();
    expect(isStructural(setParameter('p', 'value', 2).changes)).toBeFalse();
    expect(material.surface.ribbons['dock.colour']).toBeDefined();
  });

  it('is true for the first factor of an inlet and for none any more, and false for every other number of it', () => {
    const at = { node: 'lambert', inlet: 'base' };
    const edits = new GraphEdits();
    const first = edits.setFactor(material, at, 0.5, '');
    expect(isStructural(first.changes)).toBeTrue();
    expect(isStructural(edits.setFactor(applyChanges(material, first.changes), at, 0.25, '').changes)).toBeFalse();
    expect(isStructural(edits.resetFactor(at, '').changes)).toBeTrue();
  });

  it('is true for nodes, ribbons, kinds and types', () => {
    expect(isStructural([{ path: ['surface', 'nodes', 'a'] }])).toBeTrue();
    expect(isStructural([{ path: ['surface', 'ribbons', 'a.b'] }])).toBeTrue();
    expect(isStructural([{ path: ['surface', 'nodes', 'a', 'kind'], value: 'add' }])).toBeTrue();
    expect(isStructural(setParameter('p', 'type', 'colour').changes)).toBeTrue();
  });
});

describe('sameStructure', () => {
  const glow: MaterialParameter = { name: 'Glow', type: 'number', value: 1, order: 0 };
  const start = graph({ p: 'parameter', b: 'bands' }, { 'b.count': 'p', 'dock.colour': 'b' }, { p: glow });
  const after = (path: string[], value?: number | string): Compilable =>
    applyChanges(start, [value === undefined ? { path } : { path, value }]);

  it('overlooks numbers, places and names', () => {
    expect(sameStructure(start, after(['surface', 'nodes', 'b', 'values', 'softness'], 0.5))).toBeTrue();
    expect(sameStructure(start, after(['surface', 'nodes', 'b', 'x'], 99))).toBeTrue();
    expect(sameStructure(start, after(['parameters', 'p', 'value'], 3))).toBeTrue();
  });

  it('sees nodes, ribbons, kinds and types', () => {
    expect(sameStructure(start, after(['surface', 'ribbons', 'b.count']))).toBeFalse();
    expect(sameStructure(start, after(['surface', 'nodes', 'b']))).toBeFalse();
    expect(sameStructure(start, after(['surface', 'nodes', 'b', 'kind'], 'rim'))).toBeFalse();
    expect(sameStructure(start, after(['parameters', 'p', 'type'], 'colour'))).toBeFalse();
  });
});
