import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { dragZone, numberText, stepPerPixel, withinRange } from './number-drag';
import { NumberField, type NumberChange } from './number-field';

describe('Number drags', () => {
  it('grow finer the farther off the field', () => {
    expect([0, 20, 50, -50, 300].map((distance) => dragZone(distance).factor)).toEqual([1, 1, 0.1, 0.1, 0.01]);
    expect(dragZone(50).label).toBe('× 0.1');
  });

  it('know how much a pixel is', () => {
    expect(stepPerPixel(3, { low: 1, high: 12, whole: true })).toBe(1 / 16);
    expect(stepPerPixel(0, { low: 0, high: 1 })).toBe(0.005);
    expect(stepPerPixel(0, {})).toBe(0.005);
    expect(stepPerPixel(200, {})).toBe(2);
  });

  it('stay in range, whole where they must be', () => {
    expect(withinRange(5, { low: 0, high: 1 })).toBe(1);
    expect(withinRange(2.6, { whole: true })).toBe(3);
    expect(withinRange(-7, {})).toBe(-7);
  });

  it('show as many digits as are of use', () => {
    expect([0, 1, 1 / 3, 1234567, 0.0001, -2.5, NaN].map(numberText)).toEqual(['0', '1', '0.333', '1.23e+6', '1.00e-4', '-2.5', '–']);
  });
});

describe('NumberField', () => {
  let fixture: ComponentFixture<NumberField>;
  let changes: NumberChange[];
  let resets: number;

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(NumberField);
    fixture.componentRef.setInput('value', 3);
    fixture.componentRef.setInput('label', 'Bands');
    fixture.componentRef.setInput('range', { low: 1, high: 12, whole: true });
    document.body.append(fixture.nativeElement as Node);
    // No real pointer is down, so there is none to capture.
    spyOn(HTMLElement.prototype, 'setPointerCapture').and.stub();
    spyOn(HTMLElement.prototype, 'releasePointerCapture').and.stub();
    changes = [];
    resets = 0;
    fixture.componentInstance.changed.subscribe((change) => {
      changes.push(change);
      fixture.componentRef.setInput('value', change.value);
    });
    fixture.componentInstance.resetAsked.subscribe(() => resets++);
    await fixture.whenStable();
  });

  afterEach(() => (fixture.nativeElement as HTMLElement).remove());

  const root = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const field = (): HTMLElement => root().querySelector<HTMLElement>('[role="spinbutton"]')!;
  const input = (): HTMLInputElement => root().querySelector('input')!;

  function pointer(type: string, x: number, y = 0): void {
    const box = field().getBoundingClientRect();
    const event = new PointerEvent(type, {
      bubbles: true,
      clientX: box.left + x,
      clientY: box.top + box.height / 2 + y,
      button: 0,
      pointerId: 1,
    });
    field().dispatchEvent(event);
  }

  it('tells assistive technology what it is', () => {
    expect(field().getAttribute('aria-label')).toBe('Bands');
    expect(['valuenow', 'valuemin', 'valuemax'].map((name) => field().getAttribute(`aria-${name}`))).toEqual(['3', '1', '12']);
  });

  it('changes while dragged, as one gesture, in whole steps', () => {
    pointer('pointerdown', 0);
    for (const x of [8, 16, 32, 48]) pointer('pointermove', x);
    pointer('pointerup', 48);
    expect(changes.map((change) => change.value)).toEqual([4, 5, 6]);
    expect(new Set(changes.map((change) => change.gesture)).size).toBe(1);
    expect(changes[0]?.gesture).toBeTruthy();
  });

  it('is finer farther off, and says so', async () => {
    pointer('pointerdown', 0);
    pointer('pointermove', 40, 60);
    await fixture.whenStable();
    expect(root().querySelector('.number-zone')?.textContent).toBe('× 0.1');
    expect(changes).toEqual([]);
    pointer('pointerup', 40, 60);
  });

  it('never leaves its range', () => {
    pointer('pointerdown', 0);
    pointer('pointermove', 4000);
    expect(changes.at(-1)?.value).toBe(12);
    pointer('pointermove', -9000);
    expect(changes.at(-1)?.value).toBe(1);
  });

  it('is typed into after a click, expressions too', async () => {
    pointer('pointerdown', 0);
    pointer('pointerup', 0);
    await fixture.whenStable();
    input().value = '2*3+1';
    input().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(changes).toEqual([{ value: 7, gesture: undefined }]);
  });

  it('takes the focus at once, whole number chosen, so that no key after the click is lost', () => {
    pointer('pointerdown', 0);
    pointer('pointerup', 0);
    expect(document.activeElement).toBe(input());
    expect([input().selectionStart, input().selectionEnd]).toEqual([0, 1]);
  });

  const type = async (text: string, key = 'Enter'): Promise<void> => {
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await fixture.whenStable();
    input().value = text;
    if (key === 'Tab') input().dispatchEvent(new FocusEvent('blur'));
    else input().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await fixture.whenStable();
  };
  const said = (): string => root().querySelector('[role="status"]')?.textContent ?? '';

  it('says what became of a number that cannot be, and nothing of one that can', async () => {
    await type('40');
    expect([changes.at(-1)?.value, said()]).toEqual([12, 'at most 12']);
    await type('-3');
    expect([changes.at(-1)?.value, said()]).toEqual([1, 'at least 1']);
    await type('4.4');
    expect([changes.at(-1)?.value, said()]).toEqual([4, 'whole numbers only']);
    await type('5');
    expect([changes.at(-1)?.value, said()]).toEqual([5, '']);
    await type('many', 'Tab');
    expect([changes.length, said()]).toEqual([4, 'It is still 5. "many" is no number.']);
  });

  it('takes more than its track is long where that makes sense, and is not drawn back by a drag', async () => {
    fixture.componentRef.setInput('range', { low: 0, high: 4, open: 'above' });
    await fixture.whenStable();
    await type('50');
    expect([changes.at(-1)?.value, said()]).toEqual([50, '']);
    pointer('pointerdown', 0);
    pointer('pointermove', -100);
    expect(changes.at(-1)?.value).toBe(48);
    pointer('pointerup', -100);
    await type('-1');
    expect([changes.at(-1)?.value, said()]).toEqual([0, 'at least 0']);
  });

  it('reads units into its own, and more or less of what is there', async () => {
    fixture.componentRef.setInput('range', { low: -180, high: 180 });
    fixture.componentRef.setInput('suffix', '°');
    await fixture.whenStable();
    await type('0.25 turn');
    expect(changes.at(-1)?.value).toBeCloseTo(90, 10);
    await type('-50 %');
    expect(changes.at(-1)?.value).toBeCloseTo(45, 10);
    fixture.componentRef.setInput('unit', 'stops');
    await type('+100 %');
    expect(changes.at(-1)?.value).withContext('twice as bright is one stop more').toBeCloseTo(46, 10);
  });

  it('says what cannot be read, and keeps the old value', async () => {
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await fixture.whenStable();
    input().value = 'many';
    input().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await fixture.whenStable();
    expect(root().querySelector('[role="alert"]')?.textContent).toContain('"many" is no number');
    input().dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    await fixture.whenStable();
    expect(field()).toBeTruthy();
    expect(changes).toEqual([]);
  });

  it('steps by arrow keys and resets by Delete or a double click', () => {
    for (const key of ['ArrowUp', 'ArrowRight', 'ArrowDown']) field().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    expect(changes.map((change) => change.value)).toEqual([4, 5, 4]);
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Delete', bubbles: true }));
    field().dispatchEvent(new MouseEvent('dblclick', { bubbles: true }));
    expect(resets).toBe(2);
  });
});
