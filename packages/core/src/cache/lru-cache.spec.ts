import { LruCache } from './lru-cache';

describe('LruCache', () => {
  let gone: string[];
  let cache: LruCache<string>;

  beforeEach(() => {
    gone = [];
    cache = new LruCache<string>(2, (value) => gone.push(value));
  });

  it('lets go of what was used longest ago', () => {
    cache.set('a', 'A');
    cache.set('b', 'B');
    expect(cache.get('a')).toBe('A');
    cache.set('c', 'C');
    expect(gone).toEqual(['B']);
    expect([cache.get('a'), cache.get('b'), cache.get('c')]).toEqual(['A', undefined, 'C']);
  });

  it('is not used by being asked whether it has something', () => {
    cache.set('a', 'A');
    cache.set('b', 'B');
    expect(cache.has('a')).toBeTrue();
    cache.set('c', 'C');
    expect(gone).toEqual(['A']);
  });

  it('lets go of what another takes the place of, and not of the same', () => {
    cache.set('a', 'A');
    cache.set('a', 'A');
    expect(gone).toEqual([]);
    cache.set('a', 'other');
    expect(gone).toEqual(['A']);
    expect(cache.size).toBe(1);
  });

  it('lets go on demand: of one, or of all but so many', () => {
    cache.set('a', 'A');
    cache.set('b', 'B');
    cache.delete('b');
    cache.delete('b');
    expect(gone).toEqual(['B']);
    cache.trim(0);
    expect(gone).toEqual(['B', 'A']);
    expect(cache.size).toBe(0);
  });
});
