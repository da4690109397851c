import { valuesSide } from './values-side';

describe('Values of an outlet', () => {
  const card = { x: 0, y: 0, width: 172, height: 120 };
  const size = { width: 70, height: 16 };
  const side = (...others: { x: number; y: number; width: number; height: number }[]) => valuesSide(card, 12, size, others);

  it('stand beside the card where nothing lies', () => {
    expect(side()).toBe('beside');
    expect(side({ x: 260, y: 0, width: 172, height: 120 })).toBe('beside');
    expect(side({ x: 180, y: 40, width: 172, height: 120 })).toBe('beside');
  });

  it('go over the card, or under it, where another card lies beside it', () => {
    const near = { x: 200, y: 0, width: 172, height: 120 };
    expect(side(near)).toBe('above');
    expect(side(near, { x: 0, y: -130, width: 172, height: 120 })).toBe('below');
    expect(side(near, { x: 0, y: -150, width: 172, height: 120 })).toBe('above');
  });

  it('stand nowhere where each place would cover a card', () => {
    expect(
      side(
        { x: 200, y: 0, width: 172, height: 120 },
        { x: 0, y: -130, width: 172, height: 120 },
        { x: 0, y: 130, width: 172, height: 120 },
      ),
    ).toBe('nowhere');
  });

  it('go into what is empty of a row of their own, as far as they fit', () => {
    const near = [{ x: 200, y: 20, width: 172, height: 120 }];
    expect(valuesSide(card, 34, size, near, 90)).toBe('within');
    expect(valuesSide(card, 34, size, near, 40)).toBe('nowhere');
  });
});
