import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { library, type NodeKind } from '@brelvin/core';
import { NodeFinder, type FoundKind, type LooseRibbon } from './node-finder';

describe('NodeFinder', () => {
  let fixture: ComponentFixture<NodeFinder>;
  let chosen: FoundKind[];
  let closed: number;

  async function open(start: string, loose?: LooseRibbon): Promise<void> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(NodeFinder);
    fixture.componentRef.setInput('start', start);
    fixture.componentRef.setInput('loose', loose);
    chosen = [];
    closed = 0;
    fixture.componentInstance.chosen.subscribe((found) => chosen.push(found));
    fixture.componentInstance.closed.subscribe(() => closed++);
    await fixture.whenStable();
  }

  const root = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const titles = (): string[] => [...root().querySelectorAll('.finder-entry span:first-child')].map((each) => each.textContent ?? '');
  const field = (): HTMLInputElement => root().querySelector('input')!;

  async function type(text: string): Promise<void> {
    field().value = text;
    field().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }

  async function press(key: string): Promise<void> {
    field().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await fixture.whenStable();
  }

  it('starts with the letter that was typed', async () => {
    await open('b');
    expect(field().value).toBe('b');
    expect(titles()).toContain('Bands');
  });

  it('takes what is chosen by keys', async () => {
    await open('');
    await type('ad');
    await press('ArrowDown');
    await press('ArrowUp');
    await press('Enter');
    expect(chosen[0]?.kind.id).toBe('add');
    await press('Escape');
    expect(closed).toBe(1);
  });

  it('makes a node of a number or a colour that is typed, with that value', async () => {
    await open('');
    await type('0.42');
    expect(titles()[0]).toBe('Number 0.42');
    await press('Enter');
    await type('#f80');
    expect(titles()[0]).toBe('Colour #f80');
    await press('Enter');
    expect(chosen.map(({ kind }) => kind.id)).toEqual(['number', 'colour']);
    expect(chosen[0]?.ready?.values).toEqual({ value: 0.42 });
    expect((chosen[1]?.ready?.values?.['value'] as number[]).map((each) => Math.round(each * 100) / 100)).toEqual([1, 0.25, 0]);
    await type('#f');
    expect(titles()).not.toContain('Colour #f');
  });

  it('offers only what fits a ribbon, with the place where it goes', async () => {
    await open('', { free: 'inlet', type: 'light' });
    expect(titles()).not.toContain('Time');
    expect(titles()[0]).toBe('Add');
    await type('add');
    await press('Enter');
    expect(chosen[0]?.port).toBe('a');
  });

  it('offers what can feed an inlet', async () => {
    await open('', { free: 'outlet', type: 'number' });
    expect(titles()).toContain('Time');
    expect(titles()).not.toContain('UV');
  });

  it('lists for a swap what keeps all ribbons first, kinds like it before others, and says what lets go of some', async () => {
    await open('');
    const lostBy = ({ id, family }: NodeKind): number => (id === 'colour' ? 1 : Number(family !== 'Light' && id !== 'add') * 2);
    fixture.componentRef.setInput('swap', { id: 's', kind: library().kinds.get('bands'), lostBy });
    await fixture.whenStable();
    const light = titles().indexOf('Add');
    expect(light).toBeGreaterThan(10);
    expect(titles().slice(0, 2)).toEqual(['Bands by place', 'Bands by width']);
    expect(titles()).not.toContain('Bands');
    expect(titles().slice(0, light)).toContain('Lambert');
    expect(titles()[light + 1]).toBe('Colour');
    const ends = [...root().querySelectorAll('.finder-family')].map((each) => each.textContent?.trim());
    expect(ends.slice(light, light + 3)).toEqual(['Numbers', '1 ribbon goes', '2 ribbons go']);
    await type('add');
    expect(titles()[0]).toBe('Add');
  });

  it('says what to do when nothing matches', async () => {
    await open('');
    await type('qqqq');
    expect(titles()).toEqual([]);
    expect(root().textContent).toContain('Try what it does');
    await press('Enter');
    expect(chosen).toEqual([]);
  });

  it('explains the chosen one', async () => {
    await open('bands');
    expect(root().querySelector('.finder-help')?.textContent).toContain('flat steps');
  });
});
