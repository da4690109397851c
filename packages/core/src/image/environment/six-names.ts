/** Ways in which the six sides of a cube are told apart in file names: +x −x +y −y +z −z. */
const WAYS: readonly (readonly (readonly string[])[])[] = [
  [['px'], ['nx'], ['py'], ['ny'], ['pz'], ['nz']],
  [['posx'], ['negx'], ['posy'], ['negy'], ['posz'], ['negz']],
  [['xpos'], ['xneg'], ['ypos'], ['yneg'], ['zpos'], ['zneg']],
  [
    ['+x', 'x+'],
    ['-x', 'x-'],
    ['+y', 'y+'],
    ['-y', 'y-'],
    ['+z', 'z+'],
    ['-z', 'z-'],
  ],
  [
    ['right', 'rt'],
    ['left', 'lf'],
    ['top', 'up'],
    ['bottom', 'down', 'dn'],
    ['front', 'ft'],
    ['back', 'bk'],
  ],
  [['0'], ['1'], ['2'], ['3'], ['4'], ['5']],
];

/**
 * Puts six files in the order of a cube's faces by the words in their names; nothing where the names do not say it.
 *
 * @param names with or without endings
 */
export function facesByName(names: readonly string[]): number[] | undefined {
  if (names.length !== 6) return undefined;
  const stems = names.map((name) => name.replace(/\.[a-z0-9]+$/i, '').toLowerCase());
  for (const way of WAYS) {
    const found = way.map((words) => stems.findIndex((stem) => words.some((word) => endsWithWord(stem, word))));
    if (new Set(found).size === 6 && !found.includes(-1)) return found;
  }
  return undefined;
}

/** The word stands at the end, behind something that is no letter; or it is all there is. */
function endsWithWord(stem: string, word: string): boolean {
  if (!stem.endsWith(word)) return false;
  const before = stem.charAt(stem.length - word.length - 1);
  const letters = /[a-z]/.test(word.charAt(0)) ? /[a-z]/ : /[0-9]/.test(word) ? /[0-9]/ : /[^\s\S]/;
  return before === '' || !letters.test(before);
}
