import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { newCodeMaterial, newMaterial } from '@brelvin/core';
import { CheckRunner } from './checks/check-runner';
import { SourceEditor } from './code/source-editor';
import { BenchCommands } from './commands/bench-commands';
import { BenchResult } from './stage/bench-result';
import { SendOut } from './files/send-out';
import { GraphView } from './editors/graph-view';
import { GraphEditor } from './editors/graph-editor';
import { SurfaceBinding } from './editors/surface-binding';
import { Tidier } from './graph/tidier';
import { Steps } from './documents/steps';
import { BenchLayout } from './layout/bench-layout';
import { BenchPlaces } from './layout/bench-places';
import { OutletInspector } from './looking/outlet-inspector';
import { PANELS, panelTabs, RIG_PANELS } from './registry/panel-entry';
import { REGISTERED } from './registered';
import { StageBinding } from './stage/stage-binding';
import { ViewSettings } from './stage/view-settings';
import { HeldDocuments } from './testing/held-documents';
import { WORKSPACES } from './registry/workspace-entry';

describe('What the Bench is put together from', () => {
  let held: HeldDocuments;
  let steps: jasmine.SpyObj<Steps>;
  const problems = signal<readonly unknown[]>([]);
  const checked = signal<{ readonly findings: readonly unknown[] }>({ findings: [] });

  beforeEach(() => {
    held = new HeldDocuments();
    held.material.set(newMaterial('m'));
    steps = jasmine.createSpyObj<Steps>('Steps', ['undo', 'redo']);
    problems.set([]);
    checked.set({ findings: [] });
    const none = (token: unknown): { provide: unknown; useValue: object } => ({ provide: token, useValue: {} });
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        ...REGISTERED,
        ...held.providers,
        BenchCommands,
        BenchLayout,
        BenchPlaces,
        GraphView,
        GraphEditor,
        ViewSettings,
        SurfaceBinding,
        ...[SourceEditor, OutletInspector, SendOut, StageBinding, Tidier].map(none),
        { provide: Steps, useValue: steps },
        { provide: BenchResult, useValue: { problems } },
        { provide: CheckRunner, useValue: { result: checked } },
      ],
    });
  });

  const words = (entries: typeof PANELS): string[] =>
    TestBed.runInInjectionContext(() => panelTabs(entries))().map((tab) => tab.words ?? tab.value);
  const press = (key: string, target: HTMLElement = document.body, more: KeyboardEventInit = {}): KeyboardEvent => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    target.addEventListener('keydown', (pressed) => TestBed.inject(BenchCommands).press(pressed), { once: true });
    target.dispatchEvent(event);
    return event;
  };

  it('has tabs that say how much there is to mend and to look at', () => {
    expect(words(PANELS)).toEqual(['about', 'parameters', 'outline', 'opacity', 'checks', 'probe', 'cost', 'history']);
    expect(words(RIG_PANELS)).toEqual(['light dial', 'environment', 'picture', 'terms']);
    problems.set([{}, {}]);
    checked.set({ findings: [{}] });
    expect(words(PANELS).slice(0, 5)).toEqual(['problems 2', 'parameters', 'outline', 'opacity', 'checks 1']);
  });

  it('has a graph only of a material that is one', () => {
    const tabs = (): string[] => TestBed.inject(WORKSPACES).flatMap(({ id, tab }) => (TestBed.runInInjectionContext(tab)() ? [id] : []));
    expect(tabs()).toEqual(['graph', 'code', 'maps', 'parts']);
    held.material.set(newCodeMaterial('m', {}, { text: 'vec4 paint(Surface s) { return vec4(1.0); }' }));
    expect(tabs()).toEqual(['code', 'maps', 'parts']);
  });

  it('has commands and keys of which no two are the same', () => {
    const { all, keys } = TestBed.inject(BenchCommands);
    const ids = all.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const used = all.flatMap((command) => command.keys ?? []);
    expect(new Set(used).size).toBe(used.length);
    for (const each of used) expect(keys.map((key) => key.keys)).toContain(each);
    expect(ids).toEqual(jasmine.arrayContaining(['find', 'undo', 'tidy', 'peek', 'alone', 'tab-parts', 'read-code', 'send-out', 'keys']));
  });

  it('does what a key stands for, except where somebody writes', () => {
    expect(press('z', document.body, { ctrlKey: true }).defaultPrevented).toBeTrue();
    expect(steps.undo).toHaveBeenCalledTimes(1);
    const field = document.body.appendChild(document.createElement('input'));
    expect(press('z', field, { ctrlKey: true }).defaultPrevented).toBeFalse();
    expect(steps.undo).toHaveBeenCalledTimes(1);
    press('F4', field);
    expect(TestBed.inject(BenchCommands).listShown()).toBeTrue();
    field.remove();
    press('?');
    expect(TestBed.inject(BenchCommands).keysShown()).toBeTrue();
  });

  it('leaves alone what cannot be done now', () => {
    const duplicate = TestBed.inject(BenchCommands).all.find(({ id }) => id === 'duplicate');
    expect(duplicate?.unable?.()).toBe('Select nodes first.');
    expect(press('d', document.body, { ctrlKey: true }).defaultPrevented).toBeFalse();
    TestBed.inject(GraphView).select(['lambert']);
    expect(press('d', document.body, { ctrlKey: true }).defaultPrevented).toBeTrue();
    expect(Object.keys(held.material()!.surface.nodes).length).toBe(3);
  });
});
