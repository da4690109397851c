import { TestBed } from '@angular/core/testing';
import type { BrelvinDocument, StageSet } from '@brelvin/contract';
import { newMaterial, newMesh, newSet } from '@brelvin/core';
import { Subject } from 'rxjs';
import { ApiFailure } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { Compiler } from '../compile/compiler';
import type { StageEngine } from './stage-engine';
import { StageMaterials } from './stage-materials';

/** A set whose parts wear these materials. */
function wearing(...materials: string[]): StageSet {
  const rules = materials.map((material, order) => [`r${order}`, { order, pattern: `${material}*`, material, values: {} }] as const);
  const set = newSet('s');
  return { ...set, floor: { ...set.floor, shown: false }, partRules: Object.fromEntries(rules) };
}

describe('StageMaterials', () => {
  let materials: StageMaterials;
  let load: jasmine.Spy<(id: string) => Promise<BrelvinDocument>>;
  let compiled: string[];
  let asked: string[];
  let open: Map<string, BrelvinDocument>;
  let results: Subject<{ id: string; result: { problems: { message: string }[]; compiled?: unknown } }>;

  beforeEach(() => {
    load = jasmine.createSpy('load').and.callFake((id: string) => Promise.resolve(newMaterial(id)));
    [compiled, asked] = [[], []];
    open = new Map();
    results = new Subject();
    const compiler = {
      results,
      open: (id: string) => compiled.push(id),
      close: (id: string) => asked.push(`close ${id}`),
      resultOf: (id: string) => ({ compiled: { key: id } }),
    };
    TestBed.configureTestingModule({
      providers: [
        StageMaterials,
        { provide: Workbench, useValue: { changes: new Subject(), document: (id: string) => open.get(id), load } },
        { provide: Compiler, useValue: compiler },
      ],
    });
    materials = TestBed.inject(StageMaterials);
    materials.connect({
      setBench: () => undefined,
      setMaterial: (id: string) => asked.push(`wear ${id}`),
      show: (id: string) => Promise.resolve(asked.push(`show ${id}`)),
      forget: (id: string, programs = 'go') => asked.push(`${programs} ${id}`),
    } as unknown as StageEngine);
  });

  it('says that materials are on their way until the last one came, or could not be had', async () => {
    let [come, fail]: [(document: BrelvinDocument) => void, (why: unknown) => void] = [() => undefined, () => undefined];
    load.withArgs('sill').and.returnValue(new Promise((resolve) => (come = resolve)));
    load.withArgs('lost').and.returnValue(new Promise((_, reject) => (fail = reject)));
    const dressed = materials.dress(wearing('lamp', 'sill', 'lost'));
    expect(materials.opening()).toBeTrue();
    come(newMaterial('sill'));
    await Promise.resolve();
    expect(materials.opening()).toBeTrue();
    fail(new ApiFailure(404, 'gone', 'It is gone.'));
    await dressed;
    expect(materials.opening()).toBeFalse();
    expect(compiled.sort()).toEqual(['lamp', 'sill']);
    materials.missing.subscribe((missing) => expect([...missing]).toEqual([['lost', 'It is gone.']]));
  });

  it('compiles nothing anew where a set comes back', async () => {
    await materials.dress(wearing('lamp', 'sill'));
    await materials.dress(wearing('tent'));
    asked = [];
    await materials.dress(wearing('lamp', 'sill'));
    expect(compiled).toEqual(['lamp', 'sill', 'tent']);
    expect(asked).toEqual(['stay tent', 'wear lamp', 'show lamp', 'wear sill', 'show sill']);
  });

  it('compiles what parts of fields wear once more for them, and tells where it cannot be worn so', async () => {
    open.set('lamp', newMaterial('lamp')).set('sill', newMaterial('sill'));
    const set = wearing('lamp', 'sill');
    const store = { ...newMesh('field'), formula: 'const int A = 1; // region lamp\nfloat field(vec3 p) { return sphereField(p, 1.0); }' };
    await materials.dress({ ...set, meshes: { ...set.meshes, store } });
    expect(compiled).toEqual(['lamp', 'lamp on field', 'sill']);
    let missing: ReadonlyMap<string, string> = new Map();
    materials.missing.subscribe((each) => (missing = each));
    results.next({ id: 'lamp on field', result: { problems: [{ message: 'A field has no vertices.' }] } });
    expect([...missing]).toEqual([['lamp', 'A field has no vertices.']]);
    results.next({ id: 'lamp on field', result: { problems: [], compiled: {} } });
    expect([...missing]).toEqual([]);
    // While its text cannot be read, its parts go on wearing what they could.
    await materials.dress({ ...set, meshes: { ...set.meshes, store: { ...store, formula: 'float' } } });
    expect(compiled.slice(3)).toEqual(['sill on field']);
    asked = [];
    await materials.dress(set);
    expect(asked.filter((each) => each.includes('field'))).toEqual([
      'close lamp on field',
      'go lamp on field',
      'close sill on field',
      'go sill on field',
    ]);
  });

  it('lets go of those that left first when too many are at hand', async () => {
    const many = Array.from({ length: 10 }, (_, index) => `m${index}`);
    await materials.dress(wearing(...many));
    asked = [];
    await materials.dress(wearing());
    expect(asked.filter((each) => !each.startsWith('stay'))).toEqual(['close m0', 'go m0', 'close m1', 'go m1']);
    await materials.dress(wearing('m0', 'm9'));
    expect(compiled).toEqual([...many, 'm0']);
  });
});
