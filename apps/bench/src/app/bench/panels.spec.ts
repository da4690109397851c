import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Material, MaterialParameter, StageSet } from '@brelvin/contract';
import { applyChanges, type Edit, type GraphProblem, newCodeMaterial, newMaterial, newMesh, newSet, type Range } from '@brelvin/core';
import { AboutPanel } from './about/about-panel';
import { SourceEditor } from './code/source-editor';
import { findCommands, isKeys, type Command } from './commands/command';
import { BenchResult } from './stage/bench-result';
import { GraphView } from './editors/graph-view';
import { GraphEditor } from './editors/graph-editor';
import { BenchPlaces } from './layout/bench-places';
import { ParametersPanel } from './parameters/parameters-panel';
import { MeshPlace } from './parts/mesh-place';
import { MeshBar } from './stage/mesh-bar';
import { StageBinding } from './stage/stage-binding';
import { DynamicResolution } from './stage/dynamic-resolution';
import { HeldDocuments } from './testing/held-documents';

let held: HeldDocuments;
const stage = signal<{ readonly formulas: readonly { readonly mesh: string; readonly message: string }[] } | undefined>(undefined);
const problems = signal<readonly GraphProblem[]>([]);
const code = { show: jasmine.createSpy('show') };
const places = { workspace: signal('graph'), showNode: jasmine.createSpy('showNode') };

/** Documents on the Bench, and what its parts want besides. */
function setUp(): void {
  held = new HeldDocuments();
  problems.set([]);
  stage.set(undefined);
  for (const spy of [code.show, places.showNode]) spy.calls.reset();
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      GraphView,
      GraphEditor,
      ...held.providers,
      { provide: BenchResult, useValue: { problems } },
      { provide: BenchPlaces, useValue: places },
      { provide: StageBinding, useValue: { state: stage } },
      { provide: SourceEditor, useValue: code },
    ],
  });
}

/** Works on a material: its edits are applied, and listed. */
function workOn(material: Material): { editor: GraphEditor; edits: Edit[] } {
  held.material.set(material);
  const edits: Edit[] = [];
  const edit = held.edit.bind(held);
  held.edit = (role, each, gesture) => {
    edits.push(each);
    edit(role, each, gesture);
  };
  return { editor: TestBed.inject(GraphEditor), edits };
}

const root = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;
const step = (element: Element | null, key: string): void =>
  void element?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));

describe('ParametersPanel', () => {
  beforeEach(setUp);

  const glow: MaterialParameter = { name: 'Glow', type: 'number', value: 0.5, low: 0, high: 1, order: 1 };
  const paint: MaterialParameter = { name: 'Paint', type: 'colour', value: [1, 0, 0], order: 0 };

  async function show(
    parameters: Record<string, MaterialParameter>,
  ): Promise<{ fixture: ComponentFixture<ParametersPanel>; edits: Edit[] }> {
    const { edits } = workOn({ ...newMaterial('m'), parameters });
    const fixture = TestBed.createComponent(ParametersPanel);
    await fixture.whenStable();
    return { fixture, edits };
  }

  it('says what to do when there are none', async () => {
    const { fixture } = await show({});
    expect(root(fixture).textContent).toContain('Make a parameter');
  });

  it('lists them in order, with a control each', async () => {
    const { fixture, edits } = await show({ g: glow, p: paint });
    const names = [...root(fixture).querySelectorAll<HTMLInputElement>('.parameter-name')];
    expect(names.map((each) => each.value)).toEqual(['Paint', 'Glow']);
    step(root(fixture).querySelector('[role="spinbutton"]'), 'ArrowUp');
    expect(edits[0]?.changes as object).toEqual([{ path: ['parameters', 'g', 'value'], value: 0.52 }]);
  });

  it('renames, but not to nothing', async () => {
    const { fixture, edits } = await show({ g: glow });
    const [field] = [...root(fixture).querySelectorAll<HTMLInputElement>('.parameter-name')];
    field!.value = '  ';
    field!.dispatchEvent(new Event('change'));
    expect([edits.length, field!.value]).toEqual([0, 'Glow']);
    field!.value = 'Shine';
    field!.dispatchEvent(new Event('change'));
    expect(edits[0]?.changes as object).toEqual([{ path: ['parameters', 'g', 'name'], value: 'Shine' }]);
  });

  it('stands under headings, and keeps variants', async () => {
    const { fixture, edits } = await show({ g: { ...glow, heading: 'Light' }, p: paint });
    expect(root(fixture).querySelector('.parameter-heading')?.textContent).toBe('Light');
    root(fixture).querySelector<HTMLButtonElement>('.variants .choice-alone:last-child')!.click();
    await fixture.whenStable();
    const kept = applyChanges({ ...newMaterial('m') }, edits[0]!.changes);
    expect(Object.values(kept.variants)[0] as object).toEqual({ name: 'Variant 1', order: 0, values: { g: 0.5, p: [1, 0, 0] } });
    root(fixture).querySelector<HTMLButtonElement>('.variant .choice-alone')!.click();
    expect(edits[1]?.label).toBe('Variant Variant 1');
  });

  it('shows what code declares, with the control that fits, and leads to its line', async () => {
    const material = newCodeMaterial(
      'm',
      {},
      {
        text: `/** @of plain|striped */ uniform int kind;
/** Lit: is it on? @value on */ uniform bool lit;
/** @value 1 2 */ uniform vec2 size;
/** Gloss: how sharp. @value 3 in 1..9 */ uniform float gloss;
vec4 paint(Surface s) { return vec4(gloss); }`,
      },
    );
    const { editor, edits } = workOn({ ...material, parameters: { ...material.parameters, gone: { ...glow, uniform: 'gone' } } });
    const fixture = TestBed.createComponent(ParametersPanel);
    await fixture.whenStable();
    const names = [...root(fixture).querySelectorAll<HTMLButtonElement>('.parameter-name')];
    expect(names.map((each) => each.textContent?.trim()))
      .withContext('not the one whose line is away')
      .toEqual(['Kind', 'Lit', 'Size', 'Gloss']);
    root(fixture).querySelector<HTMLButtonElement>('[data-choice="1"]')!.click();
    root(fixture).querySelector<HTMLButtonElement>('.choice-alone')!.click();
    step(root(fixture).querySelectorAll('[role="spinbutton"]')[1] ?? null, 'ArrowUp');
    expect(edits.map(({ changes }) => changes[0]?.path[1])).toEqual(['u-kind', 'u-lit', 'u-size']);
    expect([editor.material().parameters['u-kind']?.value, editor.material().parameters['u-lit']?.value]).toEqual([1, 0]);
    expect((editor.material().parameters['u-size']?.value as readonly number[])[0]).toBe(1);
    names[3]!.click();
    const [sheet, asked] = code.show.calls.mostRecent().args as [{ kind: string }, Range];
    expect([sheet.kind, places.workspace()]).toEqual(['pixels', 'code']);
    expect(material.code?.text.slice(asked.from, asked.to)).toBe('gloss');
  });

  it('lets a number be moved by itself, and shows by what', async () => {
    const { fixture, edits } = await show({ g: glow });
    root(fixture).querySelector<HTMLButtonElement>('[aria-label="More of Glow"]')!.click();
    await fixture.whenStable();
    const select = root(fixture).querySelector<HTMLSelectElement>('[id^="live-"]')!;
    select.value = 'pointer';
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(edits[0]?.label).toContain('live input');
    expect(root(fixture).querySelector('.parameter-row')?.textContent).toContain('pointer over the part');
  });

  for (const [type, value] of [
    ['colour', [0.5, 0.5, 0.5]],
    ['stops', [0.5, 0.5, 0.5, 0, 1, 1, 1, 1]],
  ] as const)
    it(`turns a number into a ${type} in one step`, async () => {
      const { fixture, edits } = await show({ g: glow });
      root(fixture).querySelector<HTMLButtonElement>('[aria-label="More of Glow"]')!.click();
      await fixture.whenStable();
      const select = root(fixture).querySelector<HTMLSelectElement>('[aria-label="Kind of Glow"]')!;
      select.value = type;
      select.dispatchEvent(new Event('change'));
      const after = applyChanges({ parameters: { g: glow } }, edits[0]!.changes);
      expect(after.parameters.g as object).toEqual({ ...glow, type, value });
    });

  it('takes a colour through a gradient, which has no numbers to go from and to', async () => {
    const { fixture, edits } = await show({ g: { ...glow, type: 'colour', value: [1, 0, 0] } });
    root(fixture).querySelector<HTMLButtonElement>('[aria-label="More of Glow"]')!.click();
    await fixture.whenStable();
    const select = root(fixture).querySelector<HTMLSelectElement>('[id^="live-"]')!;
    select.value = 'sine';
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    const live = edits[0]!.changes[0]!.value as { kind: string; through: number[] };
    expect([live.kind, live.through]).toEqual(['sine', [1, 0, 0, 0, 1, 1, 1, 1]]);
    expect(root(fixture).querySelector('[aria-label^="Gradient of Glow"]')).not.toBeNull();
    expect(root(fixture).querySelector('[aria-label="From"]')).toBeNull();
  });
});

describe('MeshBar', () => {
  beforeEach(setUp);

  it('shows the mesh, and time only for what moves', async () => {
    const fixture = TestBed.createComponent(MeshBar);
    fixture.componentRef.setInput('meshId', 'mesh');
    fixture.componentRef.setInput('mesh', newMesh('torusKnot'));
    await fixture.whenStable();
    expect(root(fixture).textContent).toContain('mesh: torus knot');
    expect(root(fixture).textContent).not.toContain('time');
    fixture.componentRef.setInput('moves', true);
    await fixture.whenStable();
    expect(root(fixture).textContent).toContain('time');
  });

  it('has the formula where one is chosen, beside its numbers', async () => {
    const fixture = TestBed.createComponent(MeshBar);
    const typed: Edit[] = [];
    fixture.componentRef.setInput('meshId', 'mesh');
    fixture.componentRef.setInput('mesh', newMesh('height'));
    fixture.componentInstance.edited.subscribe(({ edit }) => typed.push(edit));
    await fixture.whenStable();
    root(fixture).querySelector('button')!.click();
    await fixture.whenStable();
    const field = document.querySelector<HTMLTextAreaElement>('.mesh-panel textarea')!;
    field.value = '5*x';
    field.dispatchEvent(new Event('input'));
    expect(typed[0]?.changes as object).toEqual([{ path: ['meshes', 'mesh', 'formula'], value: '5*x' }]);
    fixture.destroy();
  });
});

describe('MeshPlace', () => {
  beforeEach(setUp);

  async function show(mesh: StageSet['meshes'][string]): Promise<{ fixture: ComponentFixture<MeshPlace>; set: () => StageSet }> {
    const fixture = TestBed.createComponent(MeshPlace);
    let set: StageSet = { ...newSet('s'), meshes: { m: mesh } };
    fixture.componentRef.setInput('id', 'm');
    fixture.componentRef.setInput('mesh', mesh);
    fixture.componentInstance.edited.subscribe(({ edit }) => {
      set = applyChanges(set, edit.changes);
      fixture.componentRef.setInput('mesh', set.meshes['m']);
    });
    await fixture.whenStable();
    return { fixture, set: () => set };
  }

  it('mirrors, spins and copies', async () => {
    const { fixture, set } = await show(newMesh('cube'));
    const press = async (words: string): Promise<void> => {
      [...root(fixture).querySelectorAll('button')].find((each) => each.textContent?.includes(words))?.click();
      await fixture.whenStable();
    };
    await press('left ↔ right');
    await press('spin');
    step(root(fixture).querySelector('[aria-label="Columns"]'), 'ArrowUp');
    const { placing, motion, copies } = set().meshes['m']!;
    expect(placing.scale as number[]).toEqual([-1, 1, 1]);
    expect(motion.kind).toBe('spin');
    expect(copies.columns).toBeGreaterThan(1);
  });

  it('shows turns in degrees and keeps them in radians', async () => {
    const mesh = newMesh('cube');
    const { fixture, set } = await show({ ...mesh, placing: { ...mesh.placing, turn: [Math.PI / 2, 0, 0] } });
    const field = root(fixture).querySelector('[aria-label="Rotation, ° x"]');
    expect(Number(field?.getAttribute('aria-valuenow'))).toBeCloseTo(90, 6);
    step(field, 'ArrowUp');
    expect(set().meshes['m']?.placing.turn[0]).toBeGreaterThan(Math.PI / 2);
    expect(set().meshes['m']?.placing.turn[0]).toBeLessThan(2);
  });

  it('has a formula only where there is one, and says what is wrong with it', async () => {
    expect(root((await show(newMesh('cube'))).fixture).querySelector('textarea')).toBeNull();
    const { fixture } = await show(newMesh('height'));
    stage.set({ formulas: [{ mesh: 'm', message: 'Line 1, column 2: there is no sni.' }] });
    await fixture.whenStable();
    expect(root(fixture).querySelector('[role="alert"]')?.textContent).toContain('column 2');
  });
});

describe('Commands', () => {
  beforeEach(setUp);

  const command = (title: string, words?: string): Command => ({ id: title, title, words, run: () => undefined });
  const key = (name: string, held: Partial<KeyboardEventInit> = {}): KeyboardEvent => new KeyboardEvent('keydown', { key: name, ...held });

  it('are found by title, by a word in it, and by other words for it', () => {
    const commands = [command('Align left edges'), command('Ungroup', 'explode'), command('Make a group')];
    const titles = (query: string): string[] => findCommands(commands, query).map((each) => each.title);
    expect(titles('group')).toEqual(['Make a group', 'Ungroup']);
    expect(titles('make')[0]).toBe('Make a group');
    expect(titles('explode')).toEqual(['Ungroup']);
    expect(titles('')).toHaveSize(3);
    expect(titles('qqq')).toEqual([]);
  });

  it('answer to just their keys', () => {
    expect(isKeys(key('z', { ctrlKey: true }), 'Ctrl Z')).toBeTrue();
    expect(isKeys(key('Z', { ctrlKey: true, shiftKey: true }), 'Ctrl Z')).toBeFalse();
    expect(isKeys(key('Z', { metaKey: true, shiftKey: true }), 'Ctrl Shift Z')).toBeTrue();
    expect(isKeys(key('?', { shiftKey: true }), '?')).toBeTrue();
    expect(isKeys(key('Home'), 'Home')).toBeTrue();
    expect(isKeys(key('Home', { ctrlKey: true }), 'Home')).toBeFalse();
  });
});

describe('AboutPanel', () => {
  beforeEach(setUp);

  it('tells what the selected node does and where its formula comes from', async () => {
    workOn(newMaterial('m'));
    TestBed.inject(GraphView).select(['lambert']);
    const fixture = TestBed.createComponent(AboutPanel);
    await fixture.whenStable();
    expect(root(fixture).textContent).toContain('Lambert 1760');
  });

  it('puts what is wrong first, and leads to it', async () => {
    workOn(newMaterial('m'));
    const fixture = TestBed.createComponent(AboutPanel);
    problems.set([{ node: 'lambert', message: 'Something is wrong.' }]);
    await fixture.whenStable();
    root(fixture).querySelector<HTMLButtonElement>('.problem')!.click();
    expect(places.showNode).toHaveBeenCalledOnceWith('lambert');
  });
});

describe('DynamicResolution', () => {
  beforeEach(setUp);

  it('draws smaller when pictures take long, and larger again when they do not', () => {
    const scale = new DynamicResolution();
    for (let count = 0; count < 10; count++) scale.learn(scale.current, 900 * scale.current ** 2);
    expect(scale.current).toBe(0.25);
    for (let count = 0; count < 30; count++) scale.learn(scale.current, 10 * scale.current ** 2);
    expect(scale.current).toBe(1);
  });
});
