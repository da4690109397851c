import { isSoundText, soundChanges, soundJson, soundText } from './sound-text';

describe('Sound text', () => {
  it('has no NUL and no half of a surrogate pair; whole pairs stay', () => {
    expect(isSoundText('Loft lantern 🏮, ß, \t\n')).toBeTrue();
    for (const text of ['a\0b', 'a\ud83cb', 'a\udfeeb', '\udfee\ud83c'])
      expect(isSoundText(text)).withContext(JSON.stringify(text)).toBeFalse();
    expect(soundText('a\0b\ud83c\udfeec\ud83c')).toBe('ab\ud83c\udfeec');
  });

  it('is asked of every text and name in a value, and shares what was sound', () => {
    const fine = { deep: ['a', { b: 'c' }] };
    expect(soundJson(fine) === fine).toBeTrue();
    const half = { fine, text: 'x\0', list: ['\ud800y'], 'na\0me': 1 };
    expect(soundJson(half) as object).toEqual({ fine, text: 'x', list: ['y'], name: 1 });
    expect((soundJson(half) as typeof half).fine === fine).toBeTrue();
  });

  it('leaves changes alone that have nothing to lose', () => {
    const changes = [{ path: ['name'], value: 'Lantern' }, { path: ['tags'] }];
    expect(soundChanges(changes)).toBe(changes);
    expect(soundChanges([...changes, { path: ['code', 'text'], value: 'a\0b' }])[2] as object).toEqual({
      path: ['code', 'text'],
      value: 'ab',
    });
  });
});
