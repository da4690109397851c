import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Material, MaterialParameter, StageSet } from '@brelvin/contract';
import { applyChanges, newMaterial, newSet } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { PartDressing } from './part-dressing';

const parameter = (name: string, change: Partial<MaterialParameter>): MaterialParameter => ({
  name,
  type: 'number',
  value: 0,
  order: 0,
  ...change,
});

describe('What a part wears', () => {
  let fixture: ComponentFixture<PartDressing>;
  let set: StageSet;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const values = (): object | undefined => Object.values(set.partRules)[0]?.values;

  beforeEach(async () => {
    const material: Material = {
      ...newMaterial('Silk'),
      parameters: {
        tint: parameter('Tint', { type: 'colour', value: [0.2, 0.4, 0.6] }),
        flow: parameter('Flow', { type: 'vector', value: [1, 2], order: 1 }),
        ramp: parameter('Ramp', { type: 'stops', value: [0, 0, 0, 0, 1, 1, 1, 1], order: 2 }),
        count: parameter('Count', { type: 'count', value: 3, order: 3 }),
        weave: parameter('Weave', { type: 'image', order: 4 }),
      },
    };
    set = { ...newSet('s'), partRules: { own: { order: 0, mesh: 'mesh', pattern: 'part', values: { old: 1, flow: [5, 2] } } } };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: DocumentApi, useValue: { list: async () => ({ documents: [], total: 0 }) } },
        { provide: Workbench, useValue: { document: () => material } },
      ],
    });
    fixture = TestBed.createComponent(PartDressing);
    fixture.componentRef.setInput('set', set);
    fixture.componentRef.setInput('part', { mesh: 'mesh', part: 'part' });
    fixture.componentRef.setInput('materialId', 'm');
    fixture.componentInstance.edited.subscribe(({ edit }) => {
      set = applyChanges(set, edit.changes);
      fixture.componentRef.setInput('set', set);
    });
    await fixture.whenStable();
  });

  const raise = async (label: string): Promise<void> => {
    const field = page().querySelector<HTMLElement>(`[role="spinbutton"][aria-label="${label}"]`)!;
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    await fixture.whenStable();
  };

  it('has a control for each kind of value, so that a gradient, a vector and a colour stay what they are', async () => {
    expect(page().querySelector('brelvin-gradient')).not.toBeNull();
    expect(page().querySelector('brelvin-colour')).not.toBeNull();
    expect(page().textContent).toContain('one image for all parts');
    expect(page().querySelectorAll('.parameter-vector brelvin-number').length).toBe(2);
    await raise('Flow y');
    const { flow } = values() as { flow: number[] };
    expect([flow.length, flow[0]]).toEqual([2, 5]);
    expect(flow[1]).toBeGreaterThan(2);
    await raise('Count');
    expect((values() as { count: number }).count).toBe(4);
  });

  it('goes back to the material’s value, and lets go of values whose parameters are gone', async () => {
    page().querySelector<HTMLButtonElement>('[aria-label="Flow as in the material"]')!.click();
    await fixture.whenStable();
    expect(values()).toEqual({ old: 1 });
    expect(page().querySelector('.dressing-gone')?.textContent).toContain('One value is of parameters that Silk does not have any more.');
    page().querySelector<HTMLButtonElement>('.dressing-gone button')!.click();
    await fixture.whenStable();
    expect(values()).toEqual({});
    expect(page().querySelector('.dressing-gone')).toBeNull();
  });
});
