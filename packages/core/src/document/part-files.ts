/** Parts of a cube by the sides that the names of cube images tell, in their order: +x −x +y −y +z −z. */
const CUBE_PARTS = ['right', 'left', 'top', 'bottom', 'front', 'back'];

/**
 * Which file is meant for which part of a mesh: by the part's name as the last words of the file's; or by the order that the names of
 * six sides tell; files that name no part are left out.
 *
 * @param facesInOrder numbers of six files in the order of a cube's sides, where their names tell it
 * @returns the number of a file, by part
 */
export function filesForParts(
  files: readonly string[],
  parts: readonly string[],
  facesInOrder: readonly number[] | undefined,
): ReadonlyMap<string, number> {
  const plain = (text: string): string => wordsOf(text).join('');
  const stems = files.map((name) => wordsOf((name.split('/').at(-1) ?? '').replace(/\.[^.]+$/, '')));
  const found = new Map<string, number>();
  // The longest name first: “front left” before “left”.
  for (const part of [...parts].sort((a, b) => b.length - a.length)) {
    const wanted = plain(part);
    const file = stems.findIndex((stem, index) => endsIn(stem, wanted) && ![...found.values()].includes(index));
    if (wanted !== '' && file >= 0) found.set(part, file);
  }
  if (found.size > 0 || !facesInOrder) return found;
  return new Map(CUBE_PARTS.flatMap((part, side) => (parts.includes(part) ? [[part, facesInOrder[side] ?? 0] as const] : [])));
}

/** “deskTop_left” has the words desk, top and left. */
function wordsOf(text: string): string[] {
  const parts = text.split(/[^A-Za-z0-9]+|(?<=[a-z0-9])(?=[A-Z])/);
  return parts.filter(Boolean).map((word) => word.toLowerCase());
}

function endsIn(words: readonly string[], wanted: string): boolean {
  return words.some((_, first) => words.slice(first).join('') === wanted);
}
