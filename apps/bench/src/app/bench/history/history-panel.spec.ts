import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { type BrelvinDocument, type NamedVersion } from '@brelvin/contract';
import { newMaterial, newRig, newSet, rename } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { SourceEditor } from '../code/source-editor';
import { DocumentStore } from '../documents/document-store';
import { BenchPlaces } from '../layout/bench-places';
import { HistoryPanel } from './history-panel';

describe('Versions', () => {
  let fixture: ComponentFixture<HistoryPanel>;
  let workbench: Workbench;
  let versions: NamedVersion[];
  const stored: Record<string, BrelvinDocument> = {
    m: newMaterial('Silk', { set: 's', rig: 'r' }),
    s: { ...newSet('Quay'), partRules: { a: { order: 0, pattern: '*', material: 'w', values: {} } } },
    r: newRig('Dusk'),
    w: newMaterial('Worn'),
  };
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (words: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((each) =>
      (each.getAttribute('aria-label') ?? each.textContent ?? '').includes(words),
    );
    button!.click();
    await settle();
  };
  const settle = async (): Promise<void> => {
    for (let turn = 0; turn < 5; turn++) {
      await new Promise((resolve) => setTimeout(resolve));
      await fixture.whenStable();
    }
  };
  const keep = async (name: string): Promise<void> => {
    page().querySelector<HTMLInputElement>('[aria-label="Name of the version"]')!.value = name;
    await press('save version');
  };
  const names = (): string[] => ['m', 's', 'r', 'w'].map((id) => workbench.document(id)?.name ?? '');

  beforeEach(async () => {
    versions = [];
    const api = {
      read: async (id: string) => ({ id, step: 0, document: stored[id]! }),
      at: async (id: string, step: number) => ({ id, step, document: stored[id]! }),
      history: async (id: string) => ({ base: stored[id]!, baseStep: 0, steps: [] }),
      append: async (_id: string, after: number, steps: unknown[]) => ({ step: after + steps.length }),
      versions: async () => ({ versions }),
      nameVersion: async (_id: string, version: Omit<NamedVersion, 'at'>) => {
        versions = [...versions, { ...version, at: '2026-11-20T10:00:00Z' }];
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        Workbench,
        { provide: DocumentApi, useValue: api },
        { provide: BenchPlaces, useValue: { workspace: signal('graph') } },
        { provide: SourceEditor, useValue: { shownFunction: () => undefined } },
        { provide: DocumentStore, useValue: { materialId: signal('m') } },
      ],
    });
    workbench = TestBed.inject(Workbench);
    for (const id of Object.keys(stored)) await workbench.load(id);
    fixture = TestBed.createComponent(HistoryPanel);
    await settle();
  });

  afterEach(() => workbench.closeAll());

  it('say whether they hold the material, or all that stands on the Stage, and restore just that in one step', async () => {
    await keep('alone');
    await press('all on the Stage');
    await keep('whole');
    expect(versions.map(({ beside }) => beside?.map(({ id }) => id))).toEqual([undefined, ['s', 'r', 'w']]);
    expect(page().textContent).toContain(', the material');
    expect(page().textContent).toContain(', all on the Stage');
    for (const id of Object.keys(stored)) workbench.edit(id, rename(`Other ${id}`));
    await press('Restore alone');
    expect(names()).toEqual(['Silk', 'Other s', 'Other r', 'Other w']);
    await press('Restore whole');
    expect(names()).toEqual(['Silk', 'Quay', 'Dusk', 'Worn']);
    workbench.undo();
    expect(names()).toEqual(['Silk', 'Other s', 'Other r', 'Other w']);
    await press('Restore alone');
    expect(page().textContent).toContain('This is what the material looks like now.');
  });
});
