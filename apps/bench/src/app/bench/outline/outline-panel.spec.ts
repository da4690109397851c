import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Material } from '@brelvin/contract';
import { FIRST_OUTLINE, isStructural, newMaterial, parseDocument, type Edit } from '@brelvin/core';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { HeldDocuments } from '../testing/held-documents';
import { OutlinePanel } from './outline-panel';

describe('OutlinePanel', () => {
  async function show(outline?: Material['outline']): Promise<{
    page: HTMLElement;
    press: (words: string) => Promise<unknown>;
    material: () => Material;
    edits: () => Edit[];
  }> {
    const held = new HeldDocuments();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), GraphView, GraphEditor, ...held.providers] });
    held.material.set({ ...newMaterial('m'), outline });
    const fixture = TestBed.createComponent(OutlinePanel);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const press = (words: string): Promise<unknown> => {
      [...page.querySelectorAll('button')].find((each) => each.textContent?.trim() === words)!.click();
      return fixture.whenStable();
    };
    return { page, press, material: () => held.material()!, edits: () => held.edits.map(({ edit }) => edit) };
  }

  it('says what a line is for while there is none, and draws one by a press', async () => {
    const { page, press, material, edits } = await show();
    expect(page.textContent).toContain('A line round what has this material');
    await press('silhouette');
    expect(material().outline).toEqual(FIRST_OUTLINE);
    expect(isStructural(edits()[0]!.changes)).toBeTrue();
    expect(page.querySelector('[aria-label="Width of the outline"]')).not.toBeNull();
    await press('none');
    expect(material().outline).toBeUndefined();
  });

  it('keeps width and unit when the method changes, and what was set already does nothing', async () => {
    const line = { method: 'hull', width: 0.03, unit: 'metres', hidden: true } as const;
    const { press, material, edits } = await show(line);
    await press('silhouette and creases');
    expect(material().outline).toEqual({ ...line, method: 'edges' });
    await press('silhouette and creases');
    expect(edits().length).toBe(1);
  });

  it('changes its numbers without another program, never below nothing', async () => {
    const { page, press, material, edits } = await show({ ...FIRST_OUTLINE, width: 0.05 });
    const width = page.querySelector<HTMLElement>('[aria-label="Width of the outline"]')!;
    for (let step = 0; step < 4; step++)
      width.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', shiftKey: true, bubbles: true }));
    expect(material().outline?.width).toBe(0);
    await press('show through');
    expect(material().outline?.hidden).toBeTrue();
    for (const edit of edits()) expect(isStructural(edit.changes)).toBeFalse();
    expect(() => parseDocument(JSON.stringify(material()))).not.toThrow();
  });

  it('stays about as wide in another unit', async () => {
    const { press, material } = await show({ ...FIRST_OUTLINE, width: 4 });
    await press('metres');
    expect(material().outline).toEqual({ ...FIRST_OUTLINE, width: 0.02, unit: 'metres' });
    await press('metres');
    await press('pixels');
    expect(material().outline?.width).toBeCloseTo(4, 6);
  });
});
