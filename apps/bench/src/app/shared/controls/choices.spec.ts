import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { Choices, plainChoices } from './choices';

describe('Choices', () => {
  let fixture: ComponentFixture<Choices<string>>;
  let chosen: string[];

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent<Choices<string>>(Choices);
    fixture.componentRef.setInput('label', 'Faces');
    fixture.componentRef.setInput('options', [...plainChoices(['front', 'back']), { value: 'both', words: 'on both sides' }]);
    fixture.componentRef.setInput('value', 'front');
    document.body.append(fixture.nativeElement as Node);
    chosen = [];
    fixture.componentInstance.chosen.subscribe((value) => {
      chosen.push(value);
      fixture.componentRef.setInput('value', value);
    });
    await fixture.whenStable();
  });

  afterEach(() => (fixture.nativeElement as HTMLElement).remove());

  const buttons = (): HTMLButtonElement[] => [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
  const press = async (key: string): Promise<void> => {
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await fixture.whenStable();
  };

  it('are a named group of which one holds', () => {
    const host = fixture.nativeElement as HTMLElement;
    expect([host.getAttribute('role'), host.getAttribute('aria-label')]).toEqual(['radiogroup', 'Faces']);
    expect(buttons().map((each) => each.textContent?.trim())).toEqual(['front', 'back', 'on both sides']);
    expect(buttons().map((each) => each.getAttribute('aria-checked'))).toEqual(['true', 'false', 'false']);
  });

  it('tell a press once, and nothing for what already holds', async () => {
    buttons()[0]!.click();
    buttons()[2]!.click();
    await fixture.whenStable();
    buttons()[2]!.click();
    expect(chosen).toEqual(['both']);
  });

  it('are one stop of the Tab key, and walked by arrows, round the ends', async () => {
    expect(buttons().map((each) => each.tabIndex)).toEqual([0, -1, -1]);
    buttons()[0]!.focus();
    await press('ArrowLeft');
    await press('ArrowRight');
    await press('ArrowDown');
    expect(chosen).toEqual(['both', 'front', 'back']);
    expect(document.activeElement).toBe(buttons()[1]!);
  });

  it('can be reached where none holds', async () => {
    fixture.componentRef.setInput('value', 'inside');
    await fixture.whenStable();
    expect(buttons().map((each) => each.tabIndex)).toEqual([0, -1, -1]);
  });
});
