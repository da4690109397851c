import type { Graph, NodeGroup, LightRig, Material } from '@brelvin/contract';
import { FRONT_FACING } from '../ir/builtin-variables';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { library } from '../catalogue/library';
import { EMPTY_GRAPH } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import { newMaterial, newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import type { IrFunction } from '../ir/ir';
import { evaluateCall } from '../ir/evaluate';
import type { Value } from '../ir/value';
import { callShader, rigGlobals, term } from '../testing/call-shader';
import { edited, materialOf, shortGraph } from '../testing/graphs';
import { EACH_LIGHT_GROUP } from './each-light-group';
import { runForEachLight, setPort } from './grouping';
import { sumFunction } from './light-loops';
import { lowerStages } from './stages';
import { resolveGraph } from './resolve';
import { documentNumbers } from './slots';
import { isStructural, sameStructure } from './structural';

const EYE = [0, 0, 0];
const rig: LightRig = {
  ...newRig(''),
  sun: newLight('sun', { direction: [0.3, 0.8, 0.5], colour: [1, 0.8, 0.6], intensity: 0.7 }),
  ambient: newLight('ambient', { on: false }),
  lights: {
    a: { ...newLight('point', { position: [0.5, 1, 0.2], colour: [0.2, 0.5, 1], intensity: 2 }), order: 0 },
    b: { ...newLight('spot', { position: [0, 2, 0], intensity: 3 }), order: 1 },
    behind: { ...newLight('point', { position: [0, -1, 0], intensity: 5 }), order: 2 },
  },
};

/** A material whose surface is one node of each group given, the first of which runs into the dock. */
function withGroups(groups: Record<string, NodeGroup>, surface: Graph): Material {
  return { ...newMaterial('m'), surface, groups };
}

function groupNode(group: string): Graph['nodes'][string] {
  return { kind: 'group', rev: 1, group, x: 0, y: 0, values: {} };
}

function loopOf(graph: Graph, ports: Pick<NodeGroup, 'inlets' | 'outlets'>): NodeGroup {
  return { title: 'Loop', help: '', eachLight: true, ...ports, graph };
}

const byHand = withGroups(
  { g: EACH_LIGHT_GROUP },
  { ...EMPTY_GRAPH, nodes: { n: groupNode('g') }, ribbons: { 'dock.colour': { from: 'n', outlet: 'light' } } },
);

/** What the dock's colour comes to at a point that faces up, computed by the evaluator. */
function colourOf(material: Material, scene = rig): Value {
  const { module } = library();
  const resolved = resolveGraph(material, library());
  expect(resolved.problems).toEqual([]);
  const { pixel, shared } = lowerStages(resolved, material, library(), ['colour']);
  const [colour] = pixel.results;
  if (!colour) throw new RangeError('no colour');
  const sums = pixel.sums.map((sum) => sumFunction(sum, module));
  const functions = new Map([...module.functions, ...sums.map((each): [string, IrFunction] => [each.signature, each])]);
  const globals = new Map<string, Value>([...rigGlobals(scene, EYE), ['worldNormal', [0, 1, 0]], [FRONT_FACING, [1]]]);
  for (const { name, type, source } of shared.slots.slots) globals.set(name, documentNumbers(source, type, material) ?? []);
  const body = [...pixel.line, { op: 'return' as const, value: colour }];
  const main: IrFunction = { signature: 'x()', name: 'x', parameters: [], result: colour.type, body, origin: { path: '' } };
  return evaluateCall(main, [], { functions, globals }).result;
}

describe('For each light', () => {
  it('begins with Lambert’s law built by hand, the same as the built-in one', () => {
    const expected = term(
      callShader(
        'lambert(vec3,vec3)',
        [
          [0.8, 0.8, 0.8],
          [0, 1, 0],
        ],
        rigGlobals(rig, EYE),
      ),
      'diffuse',
    );
    const found = term(colourOf(byHand), 'diffuse');
    expect(Math.max(...expected)).toBeGreaterThan(0.5);
    expected.forEach((each, channel) => expect(found[channel]).toBeCloseTo(each, 6));
    expect(term(colourOf(byHand), 'emission')).toEqual([0, 0, 0]);
  });

  it('sums numbers, vectors and colours too, whatever the light: here it counts', () => {
    const one = loopOf(shortGraph({}, {}), { inlets: { v: { label: 'V', type: 'number', order: 0, value: 1 } }, outlets: {} });
    const counting: NodeGroup = {
      ...one,
      outlets: { n: { label: 'N', type: 'number', order: 0 } },
      graph: { ...EMPTY_GRAPH, ribbons: { 'dock.n': { from: 'entry', outlet: 'v' } } },
    };
    const surface = { ...EMPTY_GRAPH, nodes: { n: groupNode('g') }, ribbons: { 'dock.colour': { from: 'n', outlet: 'n' } } };
    expect(term(colourOf(withGroups({ g: counting }, surface)), 'emission')).toEqual([4, 4, 4]);
    const dark = { ...rig, sun: newLight('sun', { on: false }), lights: {} };
    expect(term(colourOf(withGroups({ g: counting }, surface), dark), 'emission')).toEqual([0, 0, 0]);
  });

  it('computes once what does not depend on the light', () => {
    const { compiled } = compileFor(GLSL_TARGET, byHand);
    const text = compiled?.program.fragment.text ?? '';
    const loop = text.slice(text.indexOf('sumOverLights1('), text.indexOf('Lit paintSurface()'));
    expect(loop).toContain('thisLight(turn)');
    expect(loop).not.toContain('normal1 =');
    expect(text.slice(text.indexOf('Lit paintSurface()'))).toContain('sumOverLights1(normal1)');
  });

  it('nests: every light with every other, the outer light kept for the inner sum', () => {
    const inner = loopOf(
      shortGraph(
        { light: 'thisLight', product: 'multiply' },
        { 'product.a': 'light.specularPart', 'product.b': 'entry.outer', 'dock.out': 'product' },
      ),
      {
        inlets: { outer: { label: 'Outer', type: 'number', order: 0 } },
        outlets: { out: { label: 'Out', type: 'number', order: 0 } },
      },
    );
    const outer = loopOf(
      {
        ...shortGraph({ light: 'thisLight' }, { 'pairs.outer': 'light.diffusePart', 'dock.out': 'pairs.out' }),
        nodes: { light: { kind: 'thisLight', rev: 1, x: 0, y: 0, values: {} }, pairs: groupNode('inner') },
      },
      { inlets: {}, outlets: { out: { label: 'Out', type: 'number', order: 0 } } },
    );
    const surface = { ...EMPTY_GRAPH, nodes: { n: groupNode('outer') }, ribbons: { 'dock.colour': { from: 'n', outlet: 'out' } } };
    const weights = [0.5, 2];
    const lights = weights.map((weight, order) => ({ ...newLight('sun', { direction: [0, 1, 0], weights: [0, weight, weight] }), order }));
    const scene = { ...rig, sun: newLight('sun', { on: false }), lights: { a: lights[0]!, b: lights[1]! } };
    const total = weights.flatMap((one) => weights.map((other) => one * other)).reduce((sum, each) => sum + each, 0);
    expect(term(colourOf(withGroups({ outer, inner }, surface), scene), 'emission')[0]).toBeCloseTo(total, 6);
    expect(compileFor(GLSL_TARGET, withGroups({ outer, inner }, surface)).problems).toEqual([]);
  });

  it('shows its inside as computed for every pixel', () => {
    const { rates } = compileFor(GLSL_TARGET, byHand);
    expect(rates['n/light']).toBe('pixel');
    expect(rates['n/coloured']).toBe('pixel');
  });

  it('is switched on and off; either asks for another program', () => {
    const once = edited(byHand, runForEachLight('g', false));
    expect(once.groups['g']?.eachLight).toBeUndefined();
    expect(sameStructure(byHand, once)).toBeFalse();
    expect(isStructural(runForEachLight('g', true).changes)).toBeTrue();
    expect(edited(once, runForEachLight('g', true))).toEqual(byHand);
  });

  it('says where “This light” has no light', () => {
    const outside = compileFor(GLSL_TARGET, materialOf({ l: 'thisLight' }, { 'dock.colour': 'l.colour' })).problems;
    expect(outside.map(({ node, message }) => [node, message])).toEqual([
      ['l', jasmine.stringContaining('only in a group that runs for each light')],
    ]);
    const once = compileFor(GLSL_TARGET, edited(byHand, runForEachLight('g', false))).problems;
    expect(once.map(({ node }) => node)).toEqual(['n/light']);
    const [before, after] = [resolveGraph(byHand, library()), edited(byHand, runForEachLight('g', false))];
    expect(resolveGraph(after, library(), before).problems.length).toBe(1);
  });

  it('does not sum images or stops', () => {
    const images = edited(byHand, setPort('g', 'outlets', 'light', 'type', 'stops'));
    expect(compileFor(GLSL_TARGET, images).problems.some(({ message }) => message.includes('cannot be summed'))).toBeTrue();
  });

  it('keeps its numbers in slots: changing one compiles nothing', () => {
    const edit = new GraphEdits('g').setInletValue({ node: 'facing', inlet: 'low' }, 0.2, 'Lowest');
    expect(isStructural(edit.changes)).toBeFalse();
    const brighter = colourOf(edited(byHand, edit));
    expect(term(brighter, 'diffuse')[0]).toBeGreaterThan(term(colourOf(byHand), 'diffuse')[0]!);
  });
});
