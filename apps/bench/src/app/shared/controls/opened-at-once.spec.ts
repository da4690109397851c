import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideOpenedAtOnce } from './opened-at-once';
import { TypedOnce } from './typed-once';

@Component({
  selector: 'brelvin-opened-here',
  imports: [TypedOnce],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (open()) {
      <input brelvinTypedOnce aria-label="Name" />
    } @else {
      <button type="button" (click)="open.set(true)" (keydown.f2)="open.set(true)">rename</button>
    }
    <input aria-label="Other" (keydown)="seen.set(seen() + 1)" />
    <output>{{ seen() }}</output>
  `,
})
class OpenedHere {
  readonly open = signal(false);
  readonly seen = signal(0);
}

describe('What a press or a key opens', () => {
  let page: HTMLElement;

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideOpenedAtOnce()] });
    const fixture = TestBed.createComponent(OpenedHere);
    page = fixture.nativeElement as HTMLElement;
    document.body.append(page);
    await fixture.whenStable();
  });

  const focused = (): string | null | undefined => document.activeElement?.getAttribute('aria-label');

  it('has the focus before anything else happens', () => {
    page.querySelector('button')!.click();
    expect(focused()).toBe('Name');
  });

  it('has it also when a key opened it', () => {
    page.querySelector('button')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'F2', bubbles: true }));
    expect(focused()).toBe('Name');
  });

  it('is not looked for with every letter that is written', () => {
    const other = page.querySelector<HTMLInputElement>('[aria-label="Other"]')!;
    other.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }));
    expect(page.querySelector('output')!.textContent).toBe('0');
    other.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(page.querySelector('output')!.textContent).toBe('2');
  });
});
