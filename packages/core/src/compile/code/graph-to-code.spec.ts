import type { Material } from '@brelvin/contract';
import { functionKindId, libraryWith } from '../../catalogue/function-library';
import { library } from '../../catalogue/library';
import { DEMO_DOCUMENTS } from '../../demo/demo-documents';
import { applyChanges } from '../../document/transaction';
import { demoLibrary } from '../../demo/demo-library';
import { isWgsl, originOfLine } from '../../language';
import { materialOf } from '../../testing/graphs';
import { compileMaterial } from '../compile-material';
import type { GraphAsCode } from './graph-as-code';
import { graphAsCode } from './graph-to-code';

function written(material: Material, ...known: [Parameters<typeof graphAsCode>[1]?]): GraphAsCode {
  const made = graphAsCode(material, ...known);
  if ('problems' in made) throw new Error(made.problems.map(({ message }) => message).join());
  return made;
}

const linesOf = ({ source }: GraphAsCode, path: string): number[] =>
  source.text.split('\n').flatMap((_, index) => (source.lines[index]?.path === path ? [index + 1] : []));

const bands = (): Material =>
  materialOf(
    { paint: ['colour', { value: [0.9, 0.4, 0.1] }], light: ['bands', { count: 4 }] },
    { 'light.base': 'paint', 'dock.colour': 'light' },
  );

describe('A graph as code', () => {
  it('leads from every node to its lines and back', () => {
    const made = written(bands());
    const text = made.source.text.split('\n');
    for (const [node, words] of [
      ['paint', 'pickedColour('],
      ['light', 'bands('],
    ] as const) {
      const [line = 0] = linesOf(made, node);
      expect(text[line - 1])
        .withContext(node)
        .toContain(words);
      expect(originOfLine(made.source, line)?.path).toBe(node);
    }
  });

  it('says of a factor that it is one', () => {
    const scaled = applyChanges(bands(), [{ path: ['surface', 'nodes', 'light', 'factors'], value: { base: [0.5, 1, 1] } }]);
    const made = written(scaled);
    expect(made.source.text).toContain('Bands, colour, factor');
    expect(compileMaterial(made.material).problems).toEqual([]);
    expect(written(bands()).source.text).not.toContain('factor');
  });

  it('calls what the library has, and writes out only what it has not', () => {
    expect(written(bands()).source.text).not.toMatch(/^Lit bands/m);
    const near = bands();
    const light = { ...near.surface.nodes['light']!, features: ['occluded'] };
    const made = written({ ...near, surface: { ...near.surface, nodes: { ...near.surface.nodes, light } } });
    expect(made.source.text).toMatch(/^Lit bandsAmbientOcclusion/m);
    expect(compileMaterial(made.material).problems).toEqual([]);
    expect(compileMaterial(written(bands()).material).problems).toEqual([]);
  });

  it('reads cube images by a sampler of their own, and still compiles', () => {
    const plain = materialOf({ sky: 'cubeImage' }, { 'dock.colour': 'sky.colour' });
    const image = {
      name: 'Sky',
      asset: 'a'.repeat(64),
      width: 8,
      height: 8,
      role: 'colour',
      wrapX: 'clamp',
      wrapY: 'clamp',
      filter: 'smooth',
      uvSet: 0,
    } as const;
    const sky = plain.surface.nodes['sky']!;
    const material: Material = {
      ...plain,
      surface: { ...plain.surface, nodes: { sky: { ...sky, image: 'sky' } } },
      images: { sky: { ...image, faces: Array<string>(6).fill('a'.repeat(64)) } },
    };
    const made = written(material);
    expect(made.source.text).toContain('uniform samplerCube');
    const { compiled, problems } = compileMaterial(made.material);
    expect(problems).toEqual([]);
    expect(compiled?.images).toEqual([{ sampler: 'image0', image: 'sky', cube: true }]);
  });

  it('keeps what every number is: words, range, heading and present value', () => {
    const { material } = written(bands());
    const { parameters } = material;
    const count = Object.values(parameters).find(({ uniform }) => uniform === 'bandsBands');
    expect(count).toEqual(jasmine.objectContaining({ name: 'Bands, bands', value: 4, low: 1, heading: 'Bands' }));
    expect(Object.values(parameters).find(({ uniform }) => uniform === 'colourColour')).toEqual(
      jasmine.objectContaining({ type: 'colour', value: [0.9, 0.4, 0.1] }),
    );
  });

  it('has no graph any more, and is what it was made of otherwise', () => {
    const graph = bands();
    const { material } = written({ ...graph, tags: ['kept'] });
    expect(Object.keys(material.surface.nodes)).toEqual([]);
    expect([material.name, material.tags]).toEqual([graph.name, ['kept']]);
    expect(graph.code).toBeUndefined();
  });

  it('is right for every demo material, without a warning of its own making', () => {
    const graphs = DEMO_DOCUMENTS.flatMap(({ document }) => (document.format === 'brelvin-material' && !document.code ? [document] : []));
    expect(graphs.length).toBeGreaterThan(10);
    for (const graph of graphs) {
      const { material } = written(graph);
      const { problems, diagnostics = [] } = compileMaterial(material, library());
      expect(problems).withContext(graph.name).toEqual([]);
      expect(diagnostics.map(({ message }) => message))
        .withContext(graph.name)
        .toEqual([]);
    }
  });

  it('gives nodes of one kind names of their own, whatever people call them', () => {
    const two = materialOf({ a: 'colour', b: 'colour', sum: 'add' }, { 'sum.a': 'a', 'sum.b': 'b', 'dock.colour': 'sum' });
    const odd = applyChanges(two, [{ path: ['surface', 'nodes', 'b', 'name'], value: '1 */ @value float; 色' }]);
    const { material, source } = written(odd);
    const names = Object.values(material.parameters).map(({ uniform }) => uniform);
    expect(new Set(names).size).toBe(names.length);
    expect(source.text.match(/\*\//g)?.length).toBe(source.text.match(/\/\*\*/g)?.length);
    expect(compileMaterial(material).problems).toEqual([]);
  });

  it('imports functions of the Library, and does not copy them', () => {
    const known = libraryWith(
      new Map([['lift', { text: 'float twice(float x) { return x * 2.0; }\nvec3 lift(vec3 colour) { return colour * twice(1.0); }' }]]),
      library(),
    );
    const { source, material } = written(materialOf({ lift: functionKindId('lift') }, { 'dock.colour': 'lift' }), known);
    expect(source.text).toMatch(/^import lift;/);
    expect(source.text).not.toContain('twice');
    expect(compileMaterial(material, known).problems).toEqual([]);
  });

  it('declares nothing under the name of a function that it calls', () => {
    const known = libraryWith(new Map([['bands1', { text: 'vec3 bands1(vec3 colour) { return colour; }' }]]), library());
    const graph = materialOf({ light: 'bands', mine: functionKindId('bands1') }, { 'dock.colour': 'light', 'dock.emission': 'mine' });
    const { source, material } = written(graph, known);
    expect(source.text).toContain('= bands1(');
    expect(compileMaterial(material, known).problems).toEqual([]);
  });

  it('says what is wrong with a graph that has no picture', () => {
    const made = graphAsCode(materialOf({ odd: 'no-such-kind' }, { 'dock.colour': 'odd' }));
    expect('problems' in made && made.problems.length).toBeGreaterThan(0);
  });

  describe('in WGSL', () => {
    const inWgsl = (material: Material): GraphAsCode => {
      const made = graphAsCode(material, demoLibrary(), 'wgsl');
      if ('problems' in made) throw new Error(made.problems.map(({ message }) => message).join());
      return made;
    };

    it('leads from every node to its lines and back', () => {
      const made = inWgsl(bands());
      const text = made.source.text.split('\n');
      expect(made.source.lines.length).toBe(text.length - 1);
      for (const [node, words] of [
        ['paint', 'pickedColour('],
        ['light', 'bands('],
      ] as const) {
        const [line = 0] = linesOf(made, node);
        expect(text[line - 1])
          .withContext(node)
          .toContain(words);
      }
    });

    it('makes the material that the graph is, of every demo', () => {
      let count = 0;
      for (const { document } of DEMO_DOCUMENTS) {
        if (document.format !== 'brelvin-material' || document.code) continue;
        const { material, source } = inWgsl(document);
        expect(isWgsl(source.text)).toBeTrue();
        const { compiled, problems } = compileMaterial(material, demoLibrary());
        expect(problems).withContext(document.name).toEqual([]);
        expect(compiled?.images.length).toBe(compileMaterial(document, demoLibrary()).compiled?.images.length);
        count++;
      }
      expect(count).toBeGreaterThan(15);
    });
  });
});
