import { library } from './library';
import { likeliness, searchKinds } from './search';

function titles(query: string): string[] {
  return searchKinds(library().kinds.values(), query).map((kind) => kind.title);
}

describe('searchKinds', () => {
  it('puts the exact title first', () => {
    expect(titles('add')[0]).toBe('Add');
    expect(titles('bands')[0]).toBe('Bands');
    expect(titles('BANDS')[0]).toBe('Bands');
  });

  it('finds by the beginning of a title, then by the trade’s words', () => {
    expect(titles('lamb')[0]).toBe('Lambert');
    expect(titles('toon')[0]).toBe('Bands');
    expect(titles('toon')).toContain('Hard spot');
    expect(titles('lerp')[0]).toBe('Mix');
    expect(titles('shiny')).toContain('Blinn-Phong');
  });

  it('reads American spelling', () => {
    expect(titles('color from hue')[0]).toBe('Colour from hue');
    expect(titles('color steps')).toContain('Gradient, steps');
    expect(titles('gray')).toContain('Luminance');
  });

  it('forgives left-out letters', () => {
    expect(titles('smthstp')).toEqual(['Smoothstep']);
  });

  it('lists everything by family when nothing is typed', () => {
    const kinds = searchKinds(library().kinds.values(), '  ');
    expect(kinds.length).toBe(library().kinds.size);
    const families = kinds.map((kind) => kind.family);
    expect(families).toEqual([...families].sort((a, b) => a.localeCompare(b)));
  });

  it('says nothing fits when nothing fits', () => {
    expect(titles('qqqq')).toEqual([]);
  });

  it('takes several words, each of which must match, and forgives a wrong letter', () => {
    expect(titles('soft step')[0]).toBe('Smoothstep');
    expect(titles('image map')[0]).toBe('Image');
    expect(titles('image qqqq')).toEqual([]);
    expect(titles('lambrt')).toContain('Lambert');
    expect(titles('multiplx')).toContain('Multiply');
  });

  it('knows what one usually puts at the end of a ribbon', () => {
    expect(likeliness('add', 'light', 'inlet')).toBeGreaterThan(likeliness('mix', 'light', 'inlet'));
    expect(likeliness('sine', 'light', 'inlet')).toBe(0);
  });
});
