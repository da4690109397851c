/** Parts of a cube by the sides that the names of cube images tell, in their order: +x −x +y −y +z −z. */
const CUBE_PARTS = ['right', 'left', 'top', 'bottom', 'front', 'back'];

/**
 * Which file is meant for which part of a mesh: by the part's name at the end of the file's; or by the order that the names of
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
  const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, '');
  const stems = files.map((name) => plain((name.split('/').at(-1) ?? '').replace(/\.[^.]+$/, '')));
  const found = new Map<string, number>();
  // The longest name first: “front left” before “left”.
  for (const part of [...parts].sort((a, b) => b.length - a.length)) {
    const wanted = plain(part);
    const file = stems.findIndex((stem, index) => stem.endsWith(wanted) && ![...found.values()].includes(index));
    if (wanted !== '' && file >= 0) found.set(part, file);
  }
  if (found.size > 0 || !facesInOrder) return found;
  return new Map(CUBE_PARTS.flatMap((part, side) => (parts.includes(part) ? [[part, facesInOrder[side] ?? 0] as const] : [])));
}
