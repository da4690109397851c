import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BrelvinDocument, DistanceField, LightRig } from '@brelvin/contract';
import { newCodedField, newDistanceField, newMaterial, newMesh, newRig, newSet, rename, setRig, SHARED_SURROUNDINGS } from '@brelvin/core';
import { ApiFailure, DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { GraphEditor } from '../editors/graph-editor';
import { GraphView } from '../editors/graph-view';
import { BesideOpener } from './beside-opener';
import { DocumentStore } from './document-store';
import { OpenFields } from './open-fields';
import { OwnSurroundings } from './own-surroundings';

describe('Documents on the Bench', () => {
  let store: DocumentStore;
  let workbench: Workbench;
  let stored: Record<string, BrelvinDocument>;

  beforeEach(async () => {
    stored = { m: newMaterial('Silk', { set: 's', rig: 'r' }), s: newSet('Quay'), r: newRig('Dusk'), t: newSet('Loft') };
    const read = async (id: string): Promise<unknown> => {
      const document = stored[id];
      if (!document) throw new ApiFailure(404, 'unknown', 'It is gone.');
      return { id, step: 0, document };
    };
    const api = {
      read,
      create: async (id: string, document: BrelvinDocument) => void (stored[id] = document),
      history: async (id: string) => ({ base: stored[id]!, baseStep: 0, steps: [] }),
      append: async (_id: string, after: number, steps: unknown[]) => ({ step: after + steps.length }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        Workbench,
        DocumentStore,
        OpenFields,
        OwnSurroundings,
        BesideOpener,
        GraphEditor,
        GraphView,
        { provide: DocumentApi, useValue: api },
      ],
    });
    [store, workbench] = [TestBed.inject(DocumentStore), TestBed.inject(Workbench)];
    for (const [role, id] of [
      ['material', 'm'],
      ['set', 's'],
      ['rig', 'r'],
    ] as const) {
      await workbench.load(id);
      store.put(role, id);
    }
    TestBed.tick();
  });

  afterEach(() => workbench.closeAll());

  const settle = async (): Promise<void> => {
    for (let turn = 0; turn < 5; turn++) {
      TestBed.tick();
      await new Promise((resolve) => setTimeout(resolve));
    }
  };

  it('are edited by their role, and stand as they were edited at once', () => {
    store.edit('set', rename('Pier'));
    expect([store.material()?.name, store.set()?.name, store.rig()?.name]).toEqual(['Silk', 'Pier', 'Dusk']);
    workbench.undo();
    expect(store.set()?.name).toBe('Quay');
  });

  it('are renamed to something, and to something else', () => {
    expect([store.rename('  '), store.rename('Silk'), store.rename(' Satin ')]).toEqual([false, false, true]);
    expect(store.material()?.name).toBe('Satin');
  });

  it('that are shared stay as they are: an edit makes one of the material’s own, as one step', async () => {
    TestBed.inject(BesideOpener);
    stored[SHARED_SURROUNDINGS.rig] = newRig('North window');
    await store.choose('rig', SHARED_SURROUNDINGS.rig);
    await settle();
    for (const exposure of [0.5, 1, 1.5]) store.edit('rig', setRig('exposure', exposure, 'Exposure'), 'drag');
    await settle();
    expect([store.rig()?.name, store.rig()?.exposure]).toEqual(['Light of Silk', 1.5]);
    expect(store.material()?.seenIn.rig).toBe(store.rigId());
    expect((workbench.document(SHARED_SURROUNDINGS.rig) as LightRig).exposure).toBe(0);
    store.rename('Satin');
    expect(store.rig()?.name).withContext('it is called after the material').toBe('Light of Satin');
    workbench.undo();
    expect([store.material()?.name, store.rig()?.name]).toEqual(['Silk', 'Light of Silk']);
    workbench.undo();
    await settle();
    expect([store.rig()?.name, store.rigId()]).toEqual(['North window', SHARED_SURROUNDINGS.rig]);
    workbench.redo();
    await settle();
    expect(store.rig()?.exposure).toBe(1.5);
  });

  it('stand in another set by a step of the material, which undo takes back with the set', async () => {
    TestBed.inject(BesideOpener);
    await store.choose('set', 't');
    await settle();
    expect([store.set()?.name, store.material()?.seenIn.set]).toEqual(['Loft', 't']);
    workbench.undo();
    await settle();
    expect([store.set()?.name, store.setId()]).toEqual(['Quay', 's']);
  });

  it('stay where another cannot be had', async () => {
    await expectAsync(store.choose('set', 'gone')).toBeRejected();
    expect([store.setId(), store.material()?.seenIn.set]).toEqual(['s', 's']);
  });

  it('are one of their own where what a material was seen in is gone, and that is said', async () => {
    const told: string[] = [];
    workbench.messages.subscribe((words) => told.push(words));
    await TestBed.inject(BesideOpener).open('set', 'gone', newSet('Plain sphere'));
    TestBed.tick();
    expect(store.set()?.name).toBe('Plain sphere');
    expect(told[0]).toContain('is gone; it stands in a new “Plain sphere”');
  });

  describe('with a field in the set', () => {
    const text = (): string | undefined => store.set()?.meshes['hall']?.formula;
    const hall = { ...newSet('Hall'), meshes: { hall: newMesh('field', {}, { field: 'f' }) } };

    it('are shown with its code, which follows it from wherever it is written', async () => {
      stored['h'] = hall;
      stored['f'] = newCodedField('Arch', 'float field(vec3 p) { return p.y; }');
      await store.choose('set', 'h');
      await settle();
      expect(text()).toContain('return p.y;');
      expect(store.set()?.name).toBe('Hall');
      workbench.edit('f', { label: 'Write', changes: [{ path: ['text'], value: 'float field(vec3 p) { return p.x; }' }] });
      await new Promise((resolve) => setTimeout(resolve, 200));
      await settle();
      expect(text()).toContain('return p.x;');
      // The set itself holds none of it.
      expect((workbench.document('h') as typeof hall).meshes.hall.formula).toBeUndefined();
    });

    it('keep the last good code of a graph while something is wrong with it, and say what', async () => {
      stored['h'] = hall;
      stored['f'] = newDistanceField('Float');
      await store.choose('set', 'h');
      await settle();
      const good = text();
      expect(good).toContain('torusField');
      workbench.edit('f', { label: 'Break', changes: [{ path: ['surface', 'nodes', 'ring', 'kind'], value: 'torusFeld' }] });
      await new Promise((resolve) => setTimeout(resolve, 200));
      await settle();
      expect(text()).toBe(good);
      expect(TestBed.inject(OpenFields).problems().get('f')?.[0]?.message).toContain('The nearest is "torusField"');
    });

    it('show no code of one that is gone', async () => {
      stored['h'] = hall;
      await store.choose('set', 'h');
      await settle();
      expect([store.set()?.name, text()]).toEqual(['Hall', undefined]);
    });

    it('let its graph be worked on in the place of the material’s', async () => {
      stored['h'] = hall;
      stored['f'] = newDistanceField('Float');
      await store.choose('set', 'h');
      await settle();
      const editor = TestBed.inject(GraphEditor);
      editor.showGraphOf('f');
      expect([editor.subject().name, editor.material().name]).toEqual(['Float', 'Silk']);
      expect(editor.typed().resolved.dock.map(({ spec, type }) => [spec.name, type])).toEqual([['field', 'field']]);
      editor.do(editor.typed().edits.setInletValue({ node: 'body', inlet: 'radii' }, [1, 1, 1], 'Radii'));
      expect((workbench.document('f') as DistanceField).surface.nodes['body']?.values['radii']).toEqual([1, 1, 1]);
      const refused: string[] = [];
      editor.refusals.subscribe((words) => refused.push(words));
      editor.do({ label: 'Image', changes: [{ path: ['images', 'i'], value: {} }] });
      expect(refused).toEqual(['A field is a shape: it has no images and no variants.']);
      editor.change(rename('Satin'));
      expect(store.material()?.name).toBe('Satin');
      editor.showGraphOf(undefined);
      expect(editor.subject().name).toBe('Satin');
      // A field that is code has no graph.
      workbench.edit('f', { label: 'Write', changes: [{ path: ['text'], value: 'float field(vec3 p) { return p.x; }' }] });
      editor.showGraphOf('f');
      expect(editor.field()).toBeUndefined();
    });
  });
});
