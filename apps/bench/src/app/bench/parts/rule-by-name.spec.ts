import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { StageSet } from '@brelvin/contract';
import { applyChanges, newMesh, newSet, overridesOf } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { RuleByName } from './rule-by-name';

describe('A material by part name', () => {
  let fixture: ComponentFixture<RuleByName>;
  let set: StageSet;

  beforeEach(async () => {
    set = {
      ...newSet('s'),
      meshes: { head: newMesh('puppetHead', {}, { name: 'Head' }), room: newMesh('cube', {}, { name: 'Room', order: 1 }) },
    };
    const api = { list: async () => ({ documents: [], total: 0 }), tags: async () => ({ tags: [] }) };
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), { provide: DocumentApi, useValue: api }] });
    fixture = TestBed.createComponent(RuleByName);
    fixture.componentRef.setInput('set', set);
    fixture.componentRef.setInput('materialId', 'bench');
    fixture.componentInstance.edited.subscribe(({ edit }) => (set = applyChanges(set, edit.changes)));
    await fixture.whenStable();
  });

  const root = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const type = async (text: string): Promise<string> => {
    const field = root().querySelector<HTMLInputElement>('#rule-pattern')!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    return root().querySelector('[role="status"]')?.textContent ?? '';
  };
  const add = async (): Promise<void> => {
    [...root().querySelectorAll('button')].find((each) => each.textContent?.trim() === 'add')!.click();
    await fixture.whenStable();
  };

  it('takes names between commas, and says which parts they are', async () => {
    expect(await type('eyes, hair')).toBe('2 parts: hair, eyes');
    expect(await type('EY*')).toBe('1 part: eyes');
    expect(await type('keel')).toBe('No part is called that, as yet.');
    await type('eyes, hair');
    await add();
    expect(['eyes', 'hair', 'skin'].map((part) => overridesOf(set, 'head', part).material)).toEqual(['bench', 'bench', undefined]);
  });

  it('dresses a whole mesh, and no other', async () => {
    const choice = root().querySelector('select')!;
    choice.value = 'room';
    choice.dispatchEvent(new Event('change'));
    expect(await type('*')).toMatch(/^6 parts: .* and 2 more$/);
    await add();
    expect(overridesOf(set, 'room', 'front').material).toBe('bench');
    expect(overridesOf(set, 'head', 'eyes').material).toBeUndefined();
  });
});
