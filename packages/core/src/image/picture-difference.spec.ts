import { pictureDifference } from './picture-difference';

const pixels = (...values: number[]): Uint8Array => Uint8Array.from(values);

describe('The difference of two pictures', () => {
  it('is nothing between equal ones', () => {
    const picture = pixels(1, 2, 3, 255, 200, 100, 50, 255);
    expect(pictureDifference(picture, picture)).toEqual({ mean: 0, largest: 0, share: 0 });
    expect(pictureDifference(pixels(), pixels())).toEqual({ mean: 0, largest: 0, share: 0 });
  });

  it('has a mean over channels, a largest step and a share of pixels; alpha does not count', () => {
    const [a, b] = [pixels(0, 0, 0, 255, 10, 10, 10, 0), pixels(30, 0, 6, 255, 10, 10, 10, 255)];
    expect(pictureDifference(a, b)).toEqual({ mean: 6, largest: 30, share: 0.5 });
  });

  it('leaves dither out of the share', () => {
    expect(pictureDifference(pixels(5, 5, 5, 255), pixels(6, 5, 4, 255)).share).toBe(0);
  });

  it('refuses pictures of different size', () => {
    expect(() => pictureDifference(pixels(0, 0, 0, 0), pixels())).toThrowError(RangeError);
  });
});
