import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { ColourPicker, type ColourChange } from './colour-picker';

describe('ColourPicker', () => {
  let fixture: ComponentFixture<ColourPicker>;
  let changes: ColourChange[];

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(ColourPicker);
    fixture.componentRef.setInput('value', [1, 0, 0]);
    changes = [];
    fixture.componentInstance.changed.subscribe((change) => {
      changes.push(change);
      fixture.componentRef.setInput('value', change.value);
    });
    await fixture.whenStable();
  });

  const root = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const hex = (): HTMLInputElement => root().querySelector<HTMLInputElement>('#colour-hex')!;

  it('shows the colour three ways', () => {
    expect(hex().value).toBe('#ff0000');
    expect(root().querySelector('[aria-label="sRGB red"]')?.getAttribute('aria-valuenow')).toBe('255');
    expect(root().querySelector('[aria-label="Linear green"]')?.getAttribute('aria-valuenow')).toBe('0');
  });

  it('takes hex, and puts back what it cannot read', () => {
    hex().value = '#808080';
    hex().dispatchEvent(new Event('change'));
    expect(changes[0]?.value[1]).toBeCloseTo(0.21586, 4);
    hex().value = 'reddish';
    hex().dispatchEvent(new Event('change'));
    expect(changes.length).toBe(1);
    expect(hex().value).toBe('#808080');
  });

  it('keeps the hue while a colour passes through grey and black', async () => {
    const square = root().querySelector<HTMLElement>('.colour-square')!;
    const press = async (key: string, times: number): Promise<void> => {
      for (let count = 0; count < times; count++) {
        square.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
        await fixture.whenStable();
      }
    };
    await press('ArrowDown', 55);
    expect(hex().value).toBe('#000000');
    await press('ArrowUp', 60);
    expect(hex().value).toBe('#ff0000');
    await press('ArrowLeft', 60);
    expect(hex().value).toBe('#ffffff');
    await press('ArrowRight', 60);
    expect(hex().value).toBe('#ff0000');
  });

  it('turns the hue by keys', async () => {
    const strip = root().querySelector<HTMLElement>('.colour-hues')!;
    for (let count = 0; count < 33; count++) {
      strip.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
      await fixture.whenStable();
    }
    const [red = 1, green = 0, blue = 1] = changes.at(-1)?.value ?? [];
    expect(green).toBeGreaterThan(0.95);
    expect(Math.max(red, blue)).toBeLessThan(0.05);
  });
});
