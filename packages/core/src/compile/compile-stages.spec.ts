import { compileFor, compileOutletsFor, type EmittedMaterial, type EmittedOutlets } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { newMaterial } from '../document/new-documents';
import type { OutletAddress } from '../document/graph';
import { EACH_LIGHT_GROUP } from './each-light-group';
import { materialOf } from '../testing/graphs';
import { outletVariant } from './compile-outlets';
import { MOST_OUTLETS } from './limits';
import { MOST_CARRIED } from './limits';

function compiled(material: ReturnType<typeof materialOf>): EmittedMaterial {
  const { compiled: found, problems } = compileFor(GLSL_TARGET, material);
  expect(problems).toEqual([]);
  if (!found) throw new Error('it did not compile');
  return found;
}

function outlets(material: ReturnType<typeof materialOf>, wanted: readonly OutletAddress[]): EmittedOutlets {
  const found = compileOutletsFor(GLSL_TARGET, material, wanted);
  if (!('compiled' in found)) throw new Error(found.problems.map((each) => each.message).join());
  return found;
}

const waving = materialOf({ wave: 'waveOffset', colour: 'colour' }, { 'dock.offset': 'wave', 'dock.colour': 'colour' });

describe('A shape', () => {
  it('moves vertices in every program that draws the mesh, and follows the clock', () => {
    const found = compiled(waving);
    expect(found.shaped).toBeTrue();
    expect(found.moves).toBeTrue();
    expect(found.program.vertex.text).toContain('waveOffset(');
    expect(found.program.fragment.text).not.toContain('waveOffset(');
    expect(Object.keys(found.variants).sort()).toEqual(['caster', 'distance', 'edges', 'wires']);
    for (const program of Object.values(found.variants)) expect(program?.vertex.text).toContain('waveOffset(');
  });

  it('costs nothing where there is none', () => {
    const found = compiled(materialOf({ colour: 'colour' }, { 'dock.colour': 'colour' }));
    expect(found.shaped).toBeFalse();
    expect(found.variants).toEqual({});
    expect(found.program.vertex.text).not.toContain('meshUvSlope');
    expect(found.program.vertex.text).not.toContain('shapeOffset');
  });

  it('is computed per vertex, and what also reaches the colour per pixel', () => {
    const both = materialOf(
      { noise: 'gradientNoise', push: 'offsetAlongNormal' },
      { 'push.amount': 'noise', 'dock.offset': 'push', 'dock.colour': 'noise' },
    );
    expect(compileFor(GLSL_TARGET, both).rates).toEqual(jasmine.objectContaining({ push: 'vertex', noise: 'pixel' }));
  });

  it('asks for no pixels at the vertices: derivatives are 0 there', () => {
    const found = compiled(
      materialOf({ checks: 'checker', push: 'offsetAlongNormal' }, { 'push.amount': 'checks', 'dock.offset': 'push' }),
    );
    expect(found.program.vertex.text).toContain('checker');
    expect(found.program.vertex.text).not.toMatch(/fwidth|dFdx|dFdy|gl_FragCoord|gl_FrontFacing/);
  });

  it('has another key than the same colours without it', () => {
    const plain = materialOf({ colour: 'colour' }, { 'dock.colour': 'colour' });
    expect(compiled(plain).key).not.toBe(compiled(waving).key);
  });

  it('grows an outline from where its vertices really are', () => {
    const outlined = { ...waving, outline: { method: 'hull', width: 2, unit: 'pixels', hidden: false } as const };
    expect(compiled(outlined).variants.hull?.vertex.text).toContain('waveOffset(');
  });
});

describe('Carry to pixels', () => {
  const carrying = materialOf({ noise: 'gradientNoise', carry: 'carry' }, { 'carry.value': 'noise', 'dock.colour': 'carry' });

  it('computes at the vertices and hands on', () => {
    const { program, shaped } = compiled(carrying);
    expect(shaped).toBeFalse();
    expect(program.vertex.text).toContain('out float carried0;');
    expect(program.vertex.text).toContain('gradientNoise(');
    expect(program.fragment.text).toContain('in float carried0;');
    expect(program.fragment.text).not.toContain('gradientNoise(');
    expect(compileFor(GLSL_TARGET, carrying).rates).toEqual(jasmine.objectContaining({ noise: 'vertex', carry: 'vertex' }));
  });

  it('takes numbers along that are only known at run time', () => {
    const { slots } = compiled(carrying);
    expect(slots.some(({ source }) => source.from === 'inlet' && source.home.node === 'noise' && source.inlet === 'scale')).toBeTrue();
  });

  it('inside of a shape is the value itself', () => {
    const { program } = compiled(materialOf({ wave: 'waveOffset', carry: 'carry' }, { 'carry.value': 'wave', 'dock.offset': 'carry' }));
    expect(program.vertex.text).toContain('waveOffset(');
    expect(program.vertex.text).not.toContain('carried0');
  });

  it('says when there is no room for one more', () => {
    const nodes: Record<string, string> = {};
    const ribbons: Record<string, string> = {};
    let last = '';
    for (let index = 0; index <= MOST_CARRIED; index++) {
      Object.assign(nodes, { [`carry${index}`]: 'carry', [`sum${index}`]: 'add' });
      ribbons[`sum${index}.a`] = `carry${index}`;
      if (last) ribbons[`sum${index}.b`] = last;
      last = `sum${index}`;
    }
    const { problems } = compileFor(GLSL_TARGET, materialOf(nodes, { ...ribbons, 'dock.colour': last }));
    expect(problems.map((each) => each.message)).toEqual([jasmine.stringMatching(/may carry 4 values.*Combine/)]);
  });
});

describe('Programs for looking at outlets', () => {
  const graph = materialOf(
    { place: 'place', noise: ['gradientNoise', { scale: 3 }], alone: 'checker', lit: 'lambert', ramp: 'gradient' },
    { 'noise.place': 'place', 'ramp.at': 'noise', 'lit.base': 'ramp', 'dock.colour': 'lit' },
  );
  const all = [
    { node: 'place', outlet: 'y' },
    { node: 'noise', outlet: 'result' },
    { node: 'alone', outlet: 'result' },
    { node: 'lit', outlet: 'result' },
  ];

  it('hold many outlets, whether or not they reach the dock, in a program as long as the graph', () => {
    const found = outlets(graph, all);
    expect(found.outlets).toEqual(all);
    const { text } = found.compiled.program.fragment;
    expect(text.match(/gradientNoise\(/g)?.length).toBe(2);
    for (const index of [0, 1, 2, 3]) expect(text).toContain(`outlet == ${index}`);
  });

  it('leave out what has no value at a point', () => {
    const images = materialOf({ image: 'image' }, { 'dock.colour': 'image.colour' });
    const missing = { node: 'nowhere', outlet: 'result' };
    expect(outlets(images, [{ node: 'image', outlet: 'colour' }, missing]).outlets).toEqual([{ node: 'image', outlet: 'colour' }]);
    const perLight = { ...newMaterial('m'), groups: { g: EACH_LIGHT_GROUP } };
    const grouped = {
      ...perLight,
      surface: {
        ...perLight.surface,
        nodes: { n: { kind: 'group', group: 'g', rev: 1, x: 0, y: 0, values: {} } },
        ribbons: { 'dock.colour': { from: 'n', outlet: 'light' } },
      },
    };
    const inside = [
      { node: 'n/cosine', outlet: 'result' },
      { node: 'n/normal', outlet: 'result' },
      { node: 'n/out:light', outlet: 'result' },
    ];
    expect(outlets(grouped, inside).outlets).toEqual(inside.slice(1));
  });

  it('move vertices as the surface does', () => {
    expect(outlets(waving, [{ node: 'colour', outlet: 'result' }]).compiled.program.vertex.text).toContain('waveOffset(');
  });

  it('take no more than a driver can bear', () => {
    const nodes = Object.fromEntries(Array.from({ length: MOST_OUTLETS + 5 }, (_, index) => [`n${index}`, 'time']));
    expect(
      outlets(
        materialOf(nodes),
        Object.keys(nodes).map((node) => ({ node, outlet: 'result' })),
      ).outlets.length,
    ).toBe(MOST_OUTLETS);
  });

  it('are spread over programs that compute only what their own need, and are fed what any of them reads', () => {
    const nodes = Object.fromEntries(Array.from({ length: 5 }, (_, index) => [`n${index}`, 'uv'] as const));
    const { compiled } = outlets(materialOf({ ...nodes, n4: ['colour', { value: [0.2, 0.4, 0.6] }] }), [
      ...Object.keys(nodes).map((node) => ({ node, outlet: 'result' })),
    ]);
    expect(Object.keys(compiled.variants)).toEqual(['outlets1']);
    expect(outletVariant(3)).toBeUndefined();
    expect(outletVariant(4)).toBe('outlets1');
    expect(outletVariant(-1)).toBeUndefined();
    expect(compiled.program.fragment.text).not.toContain('materialValues');
    expect(compiled.variants.outlets1?.fragment.text).toContain('materialValues');
    expect(compiled.blocks.map(({ name }) => name)).toContain('Material');
  });

  it('say what is wrong with a graph', () => {
    const wrong = compileOutletsFor(GLSL_TARGET, materialOf({ a: 'nonsense' }), [{ node: 'a', outlet: 'result' }]);
    expect('problems' in wrong && wrong.problems[0]?.message).toContain('nonsense');
  });
});
