import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { BrelvinDocument, Material } from '@brelvin/contract';
import { compileFor, type Cost, newLight, newMaterial, newRig, GLSL_TARGET } from '@brelvin/core';
import { BehaviorSubject, map } from 'rxjs';
import { ApiFailure, DocumentApi } from '../../shared/api/document-api';
import { Compiler } from '../compile/compiler';
import { CostWatch } from '../cost/cost-watch';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { BenchLayout } from '../layout/bench-layout';
import { HeldDocuments } from '../testing/held-documents';
import { RigEditor } from '../editors/rig-editor';
import { CompareBar } from './compare-bar';
import { CompareLine } from './compare-line';
import { CompareMenu } from './compare-menu';
import { Comparison } from './comparison';

const bench: Material = {
  ...newMaterial('Bench'),
  parameters: { s: { name: 'Strength', type: 'number', value: 0.5, low: 0, high: 1, order: 0, live: undefined } },
};
const casting = { ...newRig('Dusk'), sun: newLight('sun', { casts: true }) };
const stored: Record<string, BrelvinDocument> = { other: newMaterial('Other'), dusk: casting };
const before = { ...bench, name: 'Before' };

const dear: Cost = { instructions: 1234, reads: 2 };
const watch = {
  estimate: signal({ pixel: { instructions: 399, reads: 0 } }),
  look: () => () => undefined,
  costOf: async () => dear,
};

/** Answers at once, without a worker. */
class InstantCompiler {
  readonly open = new BehaviorSubject<ReadonlyMap<string, Material>>(new Map([['m', bench]]));
  readonly wanted: string[] = [];
  watch(id: string) {
    return this.open.pipe(map((all) => (all.get(id) ? compileFor(GLSL_TARGET, all.get(id)!) : undefined)));
  }
  take(id: string, material: Material): void {
    this.open.next(new Map(this.open.value).set(id, material));
  }
  close(id: string): void {
    const left = new Map(this.open.value);
    left.delete(id);
    this.open.next(left);
  }
  light(lit: string): void {
    this.wanted.push(lit);
  }
}

describe('Compare', () => {
  let compare: Comparison;
  let compiler: InstantCompiler;

  let held: HeldDocuments;

  beforeEach(() => {
    held = new HeldDocuments();
    held.material.set(bench);
    compiler = new InstantCompiler();
    const asCompiler = {
      watch: (id: string) => compiler.watch(id),
      open: (id: string, material: Material) => compiler.take(id, material),
      close: (id: string) => compiler.close(id),
      light: (lit: string) => compiler.light(lit),
    };
    const summary = (id: string, name: string) => ({ id, name, kind: 'material', tags: [], step: 1, updatedAt: '', pictured: null });
    const api = {
      read: async (id: string) => {
        const document = stored[id];
        if (!document) throw new ApiFailure(404, 'missing', 'It is gone.');
        return { id, step: 1, document };
      },
      at: async (id: string, step: number) => ({ id, step, document: before }),
      list: async (kind: string) => ({
        documents: kind === 'material' ? [summary('m', 'Bench'), summary('other', 'Other')] : [summary('dusk', 'Dusk')],
        total: 2,
      }),
      versions: async () => ({ versions: [{ name: 'before the fair', step: 4, at: '' }] }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        Comparison,
        BenchLayout,
        GraphView,
        GraphEditor,
        RigEditor,
        ...held.providers,
        { provide: Compiler, useValue: asCompiler },
        { provide: CostWatch, useValue: watch },
        { provide: DocumentApi, useValue: api },
      ],
    });
    compare = TestBed.inject(Comparison);
    TestBed.tick();
  });

  it('takes another material with its program, under the same rig', async () => {
    await compare.compareWith({ kind: 'material', id: 'other', name: 'Other' });
    const other = compare.other();
    expect(other?.material.name).toBe('Other');
    expect(other?.compiled).toBeDefined();
    expect(other?.rig).toBe(TestBed.inject(RigEditor).rig());
    compare.stop();
    expect(compare.other()).toBeUndefined();
    expect([...compiler.open.value.keys()]).toEqual(['m']);
  });

  it('takes a version, and another rig with the shadows that it throws', async () => {
    await compare.compareWith({ kind: 'version', step: 4, name: 'before the fair' });
    expect(compare.other()?.material.name).toBe('Before');
    await compare.compareWith({ kind: 'rig', id: 'dusk', name: 'Dusk' });
    expect(compare.other()?.rig).toEqual(casting);
    expect(compare.other()?.material).toBe(bench);
    expect(compare.other()?.compiled).toBeDefined();
    expect(compiler.wanted).toEqual(['shadowed']);
  });

  it('holds another value of a parameter, which edits of the material do not touch', async () => {
    await compare.compareWith({ kind: 'parameter', id: 's', name: 'Strength', value: 0.5 });
    compare.setValue(0.9);
    const strength = bench.parameters['s']!;
    held.material.set({ ...bench, name: 'Edited', parameters: { s: { ...strength, value: 0.1 } } });
    expect(compare.other()?.material.name).toBe('Edited');
    expect(compare.other()?.material.parameters['s']?.value).toBe(0.9);
    held.material.set({ ...bench, parameters: {} });
    expect(compare.other()).toBeUndefined();
  });

  it('says what cannot be had, and leaves one picture', async () => {
    await compare.compareWith({ kind: 'material', id: 'gone', name: 'Gone' });
    expect([compare.with(), compare.other(), compare.refusal()]).toEqual([undefined, undefined, 'It is gone.']);
    await compare.compareWith({ kind: 'rig', id: 'other', name: 'Other' });
    expect(compare.refusal()).toContain('is not a light rig');
    await compare.compareWith({ kind: 'material', id: 'dusk', name: 'Dusk' });
    expect(compare.refusal()).toContain('is not a material');
  });

  const root = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;

  it('offers rigs and materials to pick from, versions and parameters', async () => {
    const fixture = TestBed.createComponent(CompareMenu);
    await fixture.whenStable();
    root(fixture).querySelector('button')!.click();
    await fixture.whenStable();
    await fixture.whenStable();
    const panel = document.querySelector<HTMLElement>('.compare-panel')!;
    const choices = [...panel.querySelectorAll('button')];
    expect(choices.map((each) => each.textContent?.trim())).toEqual(['choose …', 'choose …', 'before the fair', 'Strength']);
    choices[3]!.click();
    await fixture.whenStable();
    expect(compare.with()).toEqual({ kind: 'parameter', id: 's', name: 'Strength', value: 0.5 });
    expect(document.querySelector('.compare-panel')).toBeNull();
  });

  it('tells numbers in one line, and changes how both are shown', async () => {
    await compare.compareWith({ kind: 'parameter', id: 's', name: 'Strength', value: 0.5 });
    const fixture = TestBed.createComponent(CompareBar);
    await fixture.whenStable();
    const numbers = (): string => root(fixture).querySelector('.compare-numbers')?.textContent?.trim() ?? '';
    expect(numbers()).toBe('Drawing both …');
    fixture.componentRef.setInput('result', { costs: [10.2, 20.6], difference: { mean: 1.234, largest: 80, share: 0.256 } });
    await fixture.whenStable();
    expect(numbers()).toBe('apart 1.23 of 255, at most 80, over 26 % · 10 and 21 ms');
    fixture.componentRef.setInput('result', { costs: [1, 2], difference: { mean: 0, largest: 0, share: 0 } });
    await fixture.whenStable();
    expect(numbers()).toContain('no difference');
    root(fixture).querySelector<HTMLElement>('[data-choice="difference"]')!.click();
    await fixture.whenStable();
    expect(compare.view().mode).toBe('difference');
    expect(root(fixture).querySelector('[aria-label="Difference times"]')).not.toBeNull();
    const strength = root(fixture).querySelector('[aria-label="Strength in the second picture"]')!;
    strength.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    expect(compare.with()).toEqual(jasmine.objectContaining({ value: 0.52 }));
    root(fixture).querySelector<HTMLElement>('[aria-label="Stop comparing"]')!.click();
    expect(compare.with()).toBeUndefined();
  });

  it('tells what both ask for at each pixel, where another program draws the second', async () => {
    await compare.compareWith({ kind: 'material', id: 'other', name: 'Other' });
    const fixture = TestBed.createComponent(CompareBar);
    fixture.componentRef.setInput('result', { costs: [10, 20], difference: { mean: 1, largest: 8, share: 0.5 } });
    await fixture.whenStable();
    await fixture.whenStable();
    expect(root(fixture).querySelector('.compare-numbers')?.textContent).toContain('399 and 1,234 instructions, 0 and 2 reads');
  });

  it('moves the line between both by keys, and stays in the picture', async () => {
    await compare.compareWith({ kind: 'material', id: 'other', name: 'Other' });
    compare.show({ mode: 'wipe' });
    const fixture = TestBed.createComponent(CompareLine);
    await fixture.whenStable();
    expect(root(fixture).textContent).toContain('Other');
    const press = (key: string): void =>
      void root(fixture)
        .querySelector('.compare-wipe')!
        .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    press('ArrowRight');
    expect(compare.view().split).toBeCloseTo(0.52, 6);
    for (const [key, at] of [
      ['End', 1],
      ['ArrowRight', 1],
      ['Home', 0],
      ['ArrowLeft', 0],
    ] as const) {
      press(key);
      expect(compare.view().split).toBe(at);
    }
    expect(compare.sides()).toBe(1);
    compare.show({ mode: 'beside' });
    expect(compare.sides()).toBe(2);
  });
});
