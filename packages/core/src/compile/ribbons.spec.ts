import type { RibbonType, Graph, Material } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { newMaterial } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import { connectionProblem, fittingInlet, fittingOutlet } from './fitting';
import { incomingRibbons } from '../document/incoming-ribbons';
import { cyclePath, orderGraph, reachesDock } from './graph-order';
import { resolveGraph } from './resolve';
import { conversion, threadCount } from './ribbon-type';
import { hashText } from '../ir/hash';
import { EMPTY_GRAPH, type InletAddress, type OutletAddress } from '../document/graph';
import { TypedGraph } from './typed-graph';

const kind = (id: string): NonNullable<ReturnType<ReturnType<typeof library>['kinds']['get']>> => library().kinds.get(id)!;

function problemOf(material: Material, from: OutletAddress, to: InletAddress): string | undefined {
  return connectionProblem(new TypedGraph(material, library(), resolveGraph(material, library())), from, to);
}

function withNodes(...ids: [id: string, kind: string][]): Material {
  return ids.reduce(
    (each, [id, name]) => applyChanges(each, [{ path: ['surface', 'nodes', id], value: { kind: name, rev: 1, x: 0, y: 0, values: {} } }]),
    newMaterial('m'),
  );
}

describe('Ribbons', () => {
  it('say from where to where they run, when they come and when they go', () => {
    const material = withNodes(['b', 'bands'], ['r', 'rim']);
    const typed = (of: Material): TypedGraph => new TypedGraph(of, library(), resolveGraph(of, library()));
    const run = typed(material).connect({ node: 'b', outlet: 'result' }, { node: 'dock', inlet: 'emission' });
    expect(run.label).toBe('Connect Bands to the dock, Emission');
    const next = applyChanges(material, run.changes);
    expect(typed(next).connect({ node: 'colour', outlet: 'result' }, { node: 'r', inlet: 'colour' }).label).toBe(
      'Connect Colour to Rim, Colour',
    );
    const gone = typed(next).disconnect({ node: 'dock', inlet: 'emission' });
    expect(gone.label).toBe('Disconnect the dock, Emission from Bands');
    expect(applyChanges(next, gone.changes).surface.ribbons['dock.emission']).toBeUndefined();
  });
});

describe('A number', () => {
  it('does not run where a direction is wanted, and is told what to put between', () => {
    const material = withNodes(['n', 'valueNoise'], ['r', 'rim']);
    const problem = problemOf(material, { node: 'n', outlet: 'result' }, { node: 'r', inlet: 'normal' });
    expect(problem).toBe('A number has no direction: “Normal” wants a vector. Put Normal from height, or Combine, between.');
    expect(problemOf(material, { node: 'n', outlet: 'result' }, { node: 'r', inlet: 'colour' })).toBeUndefined();
  });
});

describe('Conversions', () => {
  it('show what they do, and cost more the more they lose', () => {
    expect(conversion('number', 'colour')?.label).toBe('spread');
    expect(conversion('colour', 'number')?.label).toBe('luminance');
    expect(conversion('light', 'colour')?.label).toBe('sum of terms');
    expect(conversion('colour', 'light')?.label).toBe('emission');
    expect(conversion('vec3', 'colour')?.label).toBe('');
    expect(conversion('vec2', 'number')).toBeUndefined();
    expect(conversion('vec3', 'number')).toBeUndefined();
    expect(conversion('stops', 'colour')).toBeUndefined();
    expect(conversion('number', 'vec2')!.cost).toBeLessThan(conversion('light', 'colour')!.cost);
  });

  it('have one thread per component', () => {
    expect((['number', 'vec2', 'vec3', 'vec4', 'colour', 'light'] as RibbonType[]).map(threadCount)).toEqual([1, 2, 3, 4, 3, 3]);
  });
});

describe('resolveGraph', () => {
  it('lets generic nodes take the type of what is connected', () => {
    const material = applyChanges(withNodes(['u', 'uv'], ['a', 'add'], ['l', 'multiply']), [
      { path: ['surface', 'ribbons', 'a.a'], value: { from: 'u', outlet: 'result' } },
      { path: ['surface', 'ribbons', 'l.a'], value: { from: 'lambert', outlet: 'result' } },
    ]);
    const { nodes } = resolveGraph(material, library());
    expect(nodes.get('a')?.outlets['result']).toBe('vec2');
    expect(nodes.get('l')?.outlets['result']).toBe('light');
    expect(nodes.get('l')?.overload?.signature).toBe('multiplyValues(Lit,float)');
  });

  it('keeps colours colours through arithmetic', () => {
    const material = applyChanges(withNodes(['m', 'multiply']), [
      { path: ['surface', 'ribbons', 'm.a'], value: { from: 'colour', outlet: 'result' } },
    ]);
    expect(resolveGraph(material, library()).nodes.get('m')?.outlets['result']).toBe('colour');
  });
});

describe('Fitting kinds', () => {
  it('offer the inlet that takes the ribbon best', () => {
    expect(fittingInlet(kind('bands'), 'colour')?.name).toBe('base');
    expect(fittingInlet(kind('add'), 'light')).toEqual({ name: 'a', cost: 0 });
    expect(fittingInlet(kind('rim'), 'vec2')).toBeDefined();
    expect(fittingInlet(kind('time'), 'number')).toBeUndefined();
  });

  it('offer the outlet that gives what is wanted', () => {
    expect(fittingOutlet(kind('sun'), 'colour')?.name).toBe('colour');
    expect(fittingOutlet(kind('place'), 'number')?.name).toBe('x');
    expect(fittingOutlet(kind('parameter'), 'number')?.name).toBe('result');
    expect(fittingOutlet(kind('uv'), 'number')).toBeUndefined();
  });
});

describe('connectionProblem', () => {
  const material = withNodes(['u', 'uv'], ['r', 'rim'], ['s', 'sine']);

  it('is silent where a ribbon can run', () => {
    expect(problemOf(material, { node: 's', outlet: 'result' }, { node: 'r', inlet: 'strength' })).toBeUndefined();
    expect(problemOf(material, { node: 'r', outlet: 'result' }, { node: 'dock', inlet: 'colour' })).toBeUndefined();
  });

  it('says why it cannot', () => {
    expect(problemOf(material, { node: 'u', outlet: 'result' }, { node: 'r', inlet: 'strength' })).toContain('pair of numbers');
    expect(problemOf(material, { node: 'lambert', outlet: 'result' }, { node: 'colour', inlet: 'value' })).toBe(
      'This would run in a circle: Colour → Lambert → Colour.',
    );
    expect(problemOf(material, { node: 's', outlet: 'result' }, { node: 's', inlet: 'a' })).toContain('circle');
  });
});

describe('Order of a graph', () => {
  const chain = (length: number): Graph => ({
    ...EMPTY_GRAPH,
    nodes: Object.fromEntries(Array.from({ length }, (_, index) => [`n${index}`, { kind: 'sine', rev: 1, x: 0, y: 0, values: {} }])),
    ribbons: Object.fromEntries(
      Array.from({ length: length - 1 }, (_, index) => [`n${index}.a`, { from: `n${index + 1}`, outlet: 'result' }]),
    ),
  });

  it('puts sources first, without recursion', () => {
    const { order, cycle } = orderGraph(chain(20_000), incomingRibbons(chain(20_000)));
    expect(cycle).toBeUndefined();
    expect(order[0]).toBe('n19999');
    expect(order.at(-1)).toBe('n0');
  });

  it('finds a cycle and still orders the rest', () => {
    const graph = chain(5);
    const ring = { ...graph, ribbons: { ...graph.ribbons, 'n4.a': { from: 'n2', outlet: 'result' } } };
    const { order, cycle } = orderGraph(ring, incomingRibbons(ring));
    expect([...(cycle ?? [])].sort()).toEqual(['n2', 'n3', 'n4']);
    expect(order).toContain('n0');
    expect(cyclePath(graph, 'n0', 'n4')).toEqual(['n4', 'n3', 'n2', 'n1', 'n0']);
    expect(cyclePath(graph, 'n4', 'n0')).toBeUndefined();
    expect(cyclePath(graph, 'n0', 'dock')).toBeUndefined();
  });

  it('follows ribbons back from the dock', () => {
    const { surface } = newMaterial('m');
    expect([...reachesDock(incomingRibbons(surface))].sort()).toEqual(['colour', 'dock', 'lambert']);
  });
});

describe('hashText', () => {
  it('tells texts apart, also of the same letters', () => {
    const texts = ['', 'a', 'b', 'ab', 'ba', 'aab', 'aba', 'x'.repeat(1000)];
    expect(new Set(texts.map(hashText)).size).toBe(texts.length);
    expect(hashText('ab')).toBe(hashText('ab'));
    expect(hashText('ab')).toMatch(/^[0-9a-f]{16}$/);
  });
});
