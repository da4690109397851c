import type { Material, Outline, SetMesh, StageSet } from '@brelvin/contract';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import { library } from '../catalogue/library';
import { resolveGraph } from '../compile/resolve';
import { runChecks } from './run-checks';
import type { CheckInput, Finding, SeenThrough } from './check';

const material = newMaterial('m');
const resolved = resolveGraph(material, library());

const input = (set: StageSet): CheckInput => ({
  material,
  resolved,
  catalogue: library(),
  set,
  bench: 'm',
  missingMaterials: new Map(),
  newId: () => 'new',
});

function found(set: StageSet): readonly Finding[] {
  return runChecks(input(set)).findings.filter(({ place }) => place.startsWith('mesh/'));
}

const setOf = (formula: string, changes: Partial<SetMesh> = {}): StageSet => ({
  ...newSet('s'),
  meshes: { f: { ...newMesh('field'), name: 'Store', formula, ...changes } },
});
const plain = (expression: string): string => `float field(vec3 p) { return ${expression}; }`;

describe('Checks of fields', () => {
  it('say where there is nothing to be seen, and nothing of what stands there', () => {
    expect(found(setOf(plain('sphereField(p, 1.0)')))).toEqual([]);
    expect(found(setOf(plain('3.0'))).map(({ title }) => title)).toEqual(['“Store” has no surface in its box.']);
    expect(found(setOf(plain('sphereField(p - vec3(9.0, 0.0, 0.0), 1.0)'))).length).toBe(1);
    expect(found(setOf(plain('sphereField(p - vec3(9.0, 0.0, 0.0), 1.0)'), { numbers: { width: 30 } }))).toEqual([]);
  });

  it('say where the field of the Library is not there that a mesh shows, and begin one in its place', () => {
    const set = setOf(plain('p.y'), { field: 'gone', formula: undefined });
    const [finding] = found(set);
    expect(finding?.title).toBe('The field that “Store” shows is not here.');
    const mended = applyChanges(set, finding?.mend?.edit.changes ?? []);
    expect(found(mended)).toEqual([]);
  });

  it('say that a field is steeper than is said, and mend it', () => {
    // Its slope is 1 + 0.1 · 20 at most.
    const rippled = plain('sphereField(p, 1.0) + 0.1 * sin(20.0 * p.x)');
    expect(found(setOf(rippled))).toEqual([]);
    const said = setOf(rippled, { numbers: { slope: 1 } });
    const [finding] = found(said);
    expect(finding?.title).toMatch(/“Store” is steeper than is said: (2\.9|3\.0) instead of 1\./);
    expect(found(applyChanges(said, finding!.mend!.edit.changes))).toEqual([]);
    expect(found(setOf(rippled, { numbers: { slope: 3 } }))).toEqual([]);
  });

  it('say what of a material a field leaves out, and nothing of one that it draws whole', () => {
    const set = setOf(plain('sphereField(p, 1.0)'));
    const titles = (material: Material, seenThrough = new Map<string, SeenThrough>(), standing = set): string[] =>
      runChecks({ ...input(standing), material, resolved: resolveGraph(material, library()), seenThrough })
        .findings.filter(({ check }) => check === 'left-out-on-fields')
        .map(({ title }) => title);
    const outline = (method: Outline['method']): Material => ({
      ...material,
      outline: { method, width: 2, unit: 'pixels', hidden: false },
    });
    expect(titles(material)).toEqual([]);
    expect(titles(outline('edges'))).toEqual([]);
    expect(titles(outline('hull'))).toEqual(['There is no outline round “Store”.']);
    expect(titles(outline('hull'), undefined, newSet('ball'))).toEqual([]);
    expect(titles(material, new Map([['m', 'cut']]))).toEqual(['“Store” is not seen through.']);
    expect(titles(material, new Map([['m', 'glass']]))).toEqual([]);
    const shaped = {
      ...material,
      code: { text: 'vec4 paint(Surface s) { return vec4(1.0); }\nvoid shape(inout Shape v) { v.position.y += 0.1; }' },
    };
    expect(titles(shaped)).toEqual(['The shape moves nothing of “Store”.']);
  });

  it('leave a text with an error to where it is written', () => {
    expect(found(setOf('float field(vec3 p) { return spere(p); }'))).toEqual([]);
  });
});
