import { Opening } from './opening';

describe('The opening of a Stage', () => {
  let now: number;
  let waits: boolean;
  let opening: Opening;

  beforeEach(() => {
    now = 1000;
    waits = true;
    spyOn(performance, 'now').and.callFake(() => now);
    opening = new Opening(() => waits);
    opening.begin();
  });

  it('lasts while programs are on their way', () => {
    expect(opening.lasts).toBeTrue();
    waits = false;
    expect(opening.lasts).toBeFalse();
  });

  it('does not wait for ever, nor once a whole picture stood', () => {
    now += opening.left - 1;
    expect(opening.lasts).toBeTrue();
    now += 2;
    expect(opening.lasts).toBeFalse();
    opening.begin();
    expect(opening.lasts).toBeTrue();
    opening.end();
    expect(opening.lasts).toBeFalse();
  });

  it('leaves the device to programs for twice as long as a picture took', () => {
    expect(opening.pause(1150, 1000, 100)).toBe(150);
    expect(opening.pause(1300, 1000, 100)).toBe(0);
    waits = false;
    expect(opening.pause(1150, 1000, 100)).toBe(0);
  });
});
