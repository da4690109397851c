import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Material, NodeGroup } from '@brelvin/contract';
import { EMPTY_GRAPH, newMaterial } from '@brelvin/core';
import { GroupPanel } from './group-panel';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { HeldDocuments } from '../testing/held-documents';

const GLAZE: NodeGroup = {
  title: 'Glaze',
  help: '',
  inlets: {
    depth: { label: 'Depth', type: 'number', order: 0, low: 0, high: 4 },
    tint: { label: 'Tint', type: 'colour', order: 1 },
    light: { label: 'Light', type: 'light', order: 2 },
  },
  outlets: { result: { label: 'Result', type: 'colour', order: 0 } },
  graph: EMPTY_GRAPH,
};

describe('GroupPanel', () => {
  async function show(): Promise<{ page: HTMLElement; settle: () => Promise<unknown>; material: () => Material }> {
    const held = new HeldDocuments();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), GraphView, GraphEditor, ...held.providers] });
    held.material.set({ ...newMaterial('m'), groups: { g: GLAZE } });
    const fixture = TestBed.createComponent(GroupPanel);
    fixture.componentRef.setInput('group', 'g');
    await fixture.whenStable();
    return { page: fixture.nativeElement as HTMLElement, settle: () => fixture.whenStable(), material: () => held.material()! };
  }

  const labelled = (page: HTMLElement, label: string): HTMLElement | null => page.querySelector(`[aria-label="${label}"]`);

  it('gives an open inlet a value of its own, within its range, and takes it back', async () => {
    const { page, settle, material } = await show();
    labelled(page, 'Give Depth a value')!.click();
    await settle();
    expect(material().groups['g']?.inlets['depth']?.value).toBe(2);
    const field = labelled(page, 'Depth when open')!;
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    await settle();
    expect(material().groups['g']?.inlets['depth']?.value).toBeGreaterThan(2);
    labelled(page, 'Let Depth be as inside')!.click();
    await settle();
    expect(material().groups['g']?.inlets['depth']).toEqual(GLAZE.inlets['depth']);
  });

  it('does so for colours, and for nothing that has no number', async () => {
    const { page, settle, material } = await show();
    labelled(page, 'Give Tint a value')!.click();
    await settle();
    expect(material().groups['g']?.inlets['tint']?.value as object).toEqual([0.5, 0.5, 0.5]);
    expect(page.querySelector('.swatch')).not.toBeNull();
    expect(labelled(page, 'Give Light a value')).toBeNull();
    expect(labelled(page, 'Give Result a value')).toBeNull();
  });

  it('names, orders and removes ports', async () => {
    const { page, settle, material } = await show();
    const name = labelled(page, 'Name of Depth') as HTMLInputElement;
    name.value = 'Thickness';
    name.dispatchEvent(new Event('change'));
    await settle();
    labelled(page, 'Move Tint up')!.click();
    await settle();
    labelled(page, 'Remove Light')!.click();
    await settle();
    expect(Object.entries(material().groups['g']?.inlets ?? {}).map(([id, port]) => [id, port.label, port.order])).toEqual([
      ['depth', 'Thickness', 1],
      ['tint', 'Tint', 0],
    ]);
  });

  it('runs once for each light, or once', async () => {
    const { page, settle, material } = await show();
    const toggle = (): HTMLElement => [...page.querySelectorAll('button')].find((each) => each.textContent?.includes('for each light'))!;
    toggle().click();
    await settle();
    expect(material().groups['g']?.eachLight).toBeTrue();
    expect(toggle().getAttribute('aria-pressed')).toBe('true');
    toggle().click();
    await settle();
    expect(material().groups['g']).toEqual(GLAZE);
  });
});
