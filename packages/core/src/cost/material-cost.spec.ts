import type { Material } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { newCodeMaterial } from '../compile/code/new-code';
import { countingIds, edited, materialOf } from '../testing/graphs';
import { materialCost, type CostWish, type MaterialCost } from './material-cost';

const SUN: CostWish = { lights: 1, lit: 'plain', newId: countingIds() };

function costOf(material: Material, wish: Partial<CostWish> = {}): MaterialCost {
  const cost = materialCost(material, library(), { ...SUN, newId: countingIds(), ...wish });
  if ('problems' in cost) throw new Error(JSON.stringify(cost.problems));
  return cost;
}

const partOf = ({ parts }: MaterialCost, node: string): MaterialCost['parts'][number] | undefined =>
  parts.find(({ place }) => 'node' in place && place.node === node);

const turned = (): Material => {
  const material = materialOf(
    { turn: ['uvTransform', { turn: 0.3 }], check: 'checker' },
    { 'check.uv': 'turn.uv', 'dock.colour': 'check' },
  );
  return material;
};

describe('What a material costs', () => {
  it('is told by node, dearest first', () => {
    const cost = costOf(
      materialOf(
        { noise: 'fractalNoise', light: 'lambert', c: 'colour' },
        { 'light.normal': 'c', 'dock.colour': 'light', 'dock.emission': 'noise' },
      ),
    );
    expect(cost.parts[0]?.place).toEqual({ node: 'noise' });
    expect(partOf(cost, 'light')!.pixel.instructions).toBeGreaterThan(20);
    const own = cost.parts.reduce((sum, { pixel }) => sum + pixel.instructions, 0);
    expect(own + cost.rest.pixel.instructions).toBe(cost.pixel.instructions);
    expect(cost.rest.pixel.instructions).toBeGreaterThan(0);
  });

  it('grows with the lights, node by node', () => {
    const material = materialOf({ light: 'lambert' }, { 'dock.colour': 'light' });
    const at = (lights: number): number => partOf(costOf(material, { lights }), 'light')!.pixel.instructions;
    const [one, two, three] = [at(1), at(2), at(3)];
    expect(two).toBeGreaterThan(one);
    expect(three - two).toBe(two - one);
  });

  it('tells apart what shadows add', () => {
    const material = materialOf({ light: 'lambert' }, { 'dock.colour': 'light' });
    expect(costOf(material).shade).toEqual({ instructions: 0, reads: 0 });
    expect(costOf(material, { lit: 'shadowed' }).shade.reads).toBeGreaterThan(8);
  });

  it('is told by line for code, in either language', () => {
    const glsl = newCodeMaterial('code');
    const text = 'Lit paint(Surface s) {\n  float a = sin(s.uv.x);\n  return emitted(vec3(a));\n}\n';
    const cost = costOf({ ...glsl, code: { ...glsl.code!, text } });
    const line = cost.parts.find(({ place }) => 'line' in place && place.line === 2);
    expect(line?.pixel.instructions).toBe(5);
    expect(cost.movable).toEqual([]);
  });

  it('says why it cannot be told', () => {
    const cost = materialCost(materialOf({ c: 'nosuchkind' }, { 'dock.colour': 'c' }), library(), SUN);
    expect('problems' in cost && cost.problems.length).toBe(1);
  });

  it('can be told of all demos, and their nodes add up', () => {
    for (const { document } of DEMO_DOCUMENTS) {
      if (document.format !== 'brelvin-material' || document.code) continue;
      const cost = costOf(document, { lights: 3 });
      const own = cost.parts.reduce((sum, { pixel }) => sum + pixel.instructions, 0);
      expect(own + cost.rest.pixel.instructions)
        .withContext(document.name)
        .toBe(cost.pixel.instructions);
      expect(cost.openLoops).withContext(document.name).toBe(0);
    }
  });
});

describe('What could be computed less often', () => {
  it('is what changes evenly over a triangle, at the end of its chain', () => {
    const [found, ...others] = costOf(turned()).movable;
    expect(others).toEqual([]);
    expect(found).toEqual(jasmine.objectContaining({ node: 'turn', to: 'vertex' }));
    expect(found!.saves.instructions).toBeGreaterThan(3);
  });

  it('is mended by carrying it, after which it is found no more', () => {
    const before = turned();
    const { mend } = costOf(before).movable[0]!;
    const after = edited(before, mend);
    expect(Object.values(after.surface.nodes).map(({ kind }) => kind)).toContain('carry');
    const cost = costOf(after);
    expect(cost.movable).toEqual([]);
    expect(partOf(cost, 'turn')?.pixel.instructions ?? 0).toBe(0);
    expect(partOf(cost, 'turn')!.vertex.instructions).toBeGreaterThan(3);
    expect(compileMaterial(after).problems).toEqual([]);
    expect(cost.pixel.instructions).toBeLessThan(costOf(before).pixel.instructions);
  });

  it('is not what bends between vertices, nor what is cheap', () => {
    const bent = materialOf({ noise: 'fractalNoise', light: 'lambert' }, { 'dock.emission': 'noise', 'dock.colour': 'light' });
    expect(costOf(bent).movable).toEqual([]);
    const cheap = materialOf({ add: 'add', check: 'checker', u: 'uv' }, { 'add.a': 'u', 'check.uv': 'add', 'dock.colour': 'check' });
    expect(costOf(cheap).movable).toEqual([]);
  });

  it('has no mend where nothing more can be carried', () => {
    const many = materialOf(
      {
        turn: ['uvTransform', { turn: 0.3 }],
        check: 'checker',
        ...Object.fromEntries(Array.from({ length: 4 }, (_, index) => [`c${index}`, 'carry'])),
        s1: 'add',
        s2: 'add',
        s3: 'add',
        s4: 'add',
      },
      {
        'check.uv': 'turn.uv',
        'dock.colour': 'check',
        's1.a': 'c0',
        's1.b': 'c1',
        's2.a': 's1',
        's2.b': 'c2',
        's3.a': 's2',
        's3.b': 'c3',
        'dock.emission': 's3',
      },
    );
    expect(costOf(many).movable.every(({ mend }) => mend === undefined)).toBeTrue();
  });
});
