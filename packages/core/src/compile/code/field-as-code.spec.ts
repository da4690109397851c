import type { DistanceField, GraphNode } from '@brelvin/contract';
import { demoDocument } from '../../demo/demo-scenes';
import { graphInShort } from '../../document/graph-in-short';
import { FieldSampler } from '../../field/field-sampler';
import { emptyField, newDistanceField } from './new-field';
import { readField } from '../../field/read-field';
import { writtenField } from './written-field';
import { fieldAsCode } from './field-as-code';

type Short = Parameters<typeof graphInShort>;

const drawn = (nodes: Short[0], ribbons: Short[1], changes: Record<string, Partial<GraphNode>> = {}): DistanceField => {
  const surface = graphInShort(nodes, ribbons);
  const changed = Object.entries(surface.nodes).map(([id, node]) => [id, { ...node, ...changes[id] }]);
  return { ...emptyField('f'), surface: { ...surface, nodes: Object.fromEntries(changed) as Record<string, GraphNode> } };
};

function sampled(text: string): { regions: readonly string[]; at: FieldSampler } {
  const { program, diagnostics } = readField(text);
  if (!program) throw new SyntaxError(diagnostics[0].message);
  return { regions: program.regions.map(({ name }) => name), at: new FieldSampler(program) };
}

function codeOf(field: DistanceField): string {
  const made = fieldAsCode(field);
  if ('problems' in made) throw new Error(made.problems[0]?.message);
  return made.source.text;
}

const problemsOf = (field: DistanceField): [string, string][] => writtenField(field).problems.map(({ node, message }) => [node, message]);

describe('The graph of a field', () => {
  it('is code that names its regions, asks its solids in the spaces that run into them, and knows the node of each line', () => {
    const made = fieldAsCode(newDistanceField('f'));
    if ('problems' in made) return fail(made.problems[0]?.message);
    const { text, lines } = made.source;
    expect(sampled(text).regions).toEqual(['Float', 'Collar']);
    const torus = text.split('\n').findIndex((line) => line.includes('torusField('));
    expect(lines[torus]?.path).toBe('ring');
    // The collar is a quarter of a metre up, the float round the origin.
    const { at } = sampled(text);
    expect(at.at([0.79, 0.25, 0]).distance).toBeCloseTo(0, 5);
    expect([at.at([0.79, 0.25, 0]).part, at.at([0, -1.2, 0]).part]).toEqual([1, 0]);
    expect(at.at([0, -1.2, 0]).distance).toBeCloseTo(0.2, 2);
  });

  it('says of every place what the same hall says as code', () => {
    const [graph, code] = ['field-net-store', 'field-net-store-code'].map((id) => {
      const { text = '' } = writtenField(demoDocument(id) as DistanceField);
      return sampled(text);
    });
    let seed = 5;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const hits = new Map<string, number>();
    for (let count = 0; count < 600; count++) {
      const place = [(random() - 0.5) * 6, random() * 4.2 - 0.2, (random() - 0.5) * 11];
      const [one, other] = [graph!.at.at(place), code!.at.at(place)];
      expect(one.distance).withContext(place.join()).toBeCloseTo(other.distance, 4);
      const [region, same] = [graph!.regions[one.part] ?? '', code!.regions[other.part] ?? ''];
      // Where arches meet boards the code says the border in its own way.
      if (![region, same].every((each) => each === 'Arches' || each === 'Boards')) expect(region).withContext(place.join()).toBe(same);
      hits.set(region, (hits.get(region) ?? 0) + 1);
    }
    expect([...hits.keys()].sort()).toEqual(['Arches', 'Boards', 'Floats', 'Racks', 'Roof']);
  });

  it('may be open: then it is nowhere', () => {
    expect(sampled(codeOf(emptyField('f'))).at.at([0, 0, 0]).distance).toBe(1);
    const plain = drawn({ ball: ['sphereField', 0, 0, { radius: 1 }] }, { 'dock.field': 'ball.result' });
    expect(sampled(codeOf(plain)).regions).toEqual(['field']);
    expect(sampled(codeOf(plain)).at.at([3, 0, 0]).distance).toBe(2);
  });

  it('calls regions by the names of their nodes, whatever letters they have', () => {
    const ribbons = {
      'a.distance': 'ball.result',
      'b.distance': 'box.result',
      'c.distance': 'ball.result',
      'x.a': 'a.result',
      'x.b': 'b.result',
    };
    const kinds: Short[0] = {
      ball: ['sphereField', 0, 0],
      box: ['boxField', 0, 0],
      a: ['fieldRegion', 0, 0],
      b: ['fieldRegion', 0, 0],
      c: ['fieldRegion', 0, 0],
      x: ['fieldUnion', 0, 0],
      y: ['fieldUnion', 0, 0],
    };
    const field = drawn(
      kinds,
      { ...ribbons, 'y.a': 'x.result', 'y.b': 'c.result', 'dock.field': 'y.result' },
      { a: { name: 'Netze 網' }, b: { name: '3 Körbe' }, c: { name: 'Netze 網' } },
    );
    const text = codeOf(field);
    expect(sampled(text).regions).toEqual(['Netze 網', '3 Körbe']);
    expect(text).toContain('const int NETZE = 1;');
    expect(text).toContain('const int REGION_2 = 2;');
    // Without a name it is called as its kind.
    expect(sampled(codeOf(drawn(kinds, { ...ribbons, 'dock.field': 'x.result' }))).regions).toEqual(['Region']);
  });

  it('calls what has no name the rest, where something else has one', () => {
    const field = drawn(
      { ball: ['sphereField', 0, 0], box: ['boxField', 0, 0], name: ['fieldRegion', 0, 0], x: ['fieldUnion', 0, 0] },
      { 'name.distance': 'ball.result', 'x.a': 'name.result', 'x.b': 'box.result', 'dock.field': 'x.result' },
      { name: { name: 'Buoy' } },
    );
    const { regions, at } = sampled(codeOf(field));
    expect(regions).toEqual(['Buoy', 'Rest']);
    expect(regions[at.at([0.5, 0.5, 0.5]).part]).toBe('Rest');
  });

  it('keeps a region through what changes its distance', () => {
    const through = (kind: string, inlet: string): readonly string[] => {
      const field = drawn(
        { ball: ['sphereField', 0, 0], name: ['fieldRegion', 0, 0], change: [kind, 0, 0] },
        { 'name.distance': 'ball.result', [`change.${inlet}`]: 'name.result', 'dock.field': 'change.result' },
        { name: { name: 'Buoy' } },
      );
      return sampled(codeOf(field)).regions;
    };
    for (const kind of ['fieldGrow', 'fieldOnion', 'fieldDisplace']) expect(through(kind, 'distance')).withContext(kind).toEqual(['Buoy']);
    // Nothing runs into its other end.
    expect(through('fieldMorph', 'a')).toEqual(['Buoy', 'Rest']);
  });

  it('has parameters under their names, and functions that are typed into nodes', () => {
    const field: DistanceField = {
      ...drawn(
        { size: ['parameter', 0, 0], ball: ['sphereField', 0, 0], own: ['code', 0, 0] },
        { 'ball.radius': 'size.result', 'own.distance': 'ball.result', 'dock.field': 'own.result' },
        { size: { parameter: 'p' }, own: { code: 'float thicker(float distance) { return distance - 0.25; }' } },
      ),
      parameters: { p: { name: 'Size of it', type: 'number', value: 0.75, order: 0 } },
    };
    const text = codeOf(field);
    expect(text).toContain('const float sizeOfIt = 0.75;');
    expect(sampled(text).at.at([2, 0, 0]).distance).toBeCloseTo(1, 5);
  });

  it('says at its node what a field cannot have', () => {
    const into = (kind: string, outlet: string, changes: Partial<GraphNode> = {}): [string, string][] =>
      problemsOf(
        drawn(
          { odd: [kind, 0, 0], ball: ['sphereField', 0, 0] },
          { 'ball.radius': `odd.${outlet}`, 'dock.field': 'ball.result' },
          { odd: changes },
        ),
      );
    expect(into('carry', 'result')).toEqual([['odd', jasmine.stringContaining('no vertices')]]);
    expect(into('pointerOver', 'result')).toEqual([['odd', jasmine.stringContaining('pointer')]]);
    expect(into('image', 'alpha', { image: 'i' })).toEqual([['odd', jasmine.stringContaining('no images')]]);
    // What stands beside and is not read is nobody's trouble.
    const beside = drawn({ odd: ['pointerOver', 0, 0], ball: ['sphereField', 0, 0] }, { 'dock.field': 'ball.result' });
    expect(problemsOf(beside)).toEqual([]);
    const normals = drawn(
      { odd: ['normal', 0, 0], ball: ['sphereField', 0, 0] },
      { 'ball.position': 'odd.result', 'dock.field': 'ball.result' },
    );
    const [[node, message] = ['', '']] = problemsOf(normals);
    expect(message).toContain('A field is asked everywhere in space: what “Normal” reads');
    expect(node).toBe('odd');
    const moving: DistanceField = {
      ...drawn(
        { size: ['parameter', 0, 0], ball: ['sphereField', 0, 0] },
        { 'ball.radius': 'size.result', 'dock.field': 'ball.result' },
        {
          size: { parameter: 'p' },
        },
      ),
      parameters: {
        p: { name: 'Swell', type: 'number', value: 1, order: 0, live: { kind: 'sine', low: 0, high: 1, period: 1, phase: 0, speed: 1 } },
      },
    };
    expect(problemsOf(moving)).toEqual([['size', jasmine.stringContaining('“Swell” moves by itself')]]);
    const circle = drawn(
      { a: ['fieldGrow', 0, 0], b: ['fieldGrow', 0, 0] },
      { 'a.distance': 'b.result', 'b.distance': 'a.result', 'dock.field': 'a.result' },
    );
    expect(problemsOf(circle)[0]?.[1]).toContain('run in a circle');
  });
});
