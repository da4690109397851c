/** A file that another one names, among those that were chosen. */
export interface NamedFile<T> {
  readonly file: T;
  /** Names of others that would fit as well; the first was taken. */
  readonly also: readonly string[];
}

/**
 * The file that is meant by a path: by the whole path, from the folder of the file that names it or as it stands; else by
 * whole folders at its end; else by the whole name. Case and the kind of slash do not matter.
 *
 * @param from name of the file that names it, with its folders
 * @returns nothing when no file is called so
 */
export function findNamedFile<T extends { readonly name: string }>(
  path: string,
  from: string,
  files: readonly T[],
): NamedFile<T> | undefined {
  const wanted = plainPath(path);
  const folder = plainPath(from).split('/').slice(0, -1).join('/');
  const beside = plainPath(`${folder}/${path}`);
  const last = wanted.split('/').at(-1) ?? '';
  const ways: readonly ((name: string) => boolean)[] = [
    (name) => name === beside,
    (name) => name === wanted,
    (name) => name.endsWith(`/${wanted}`),
    (name) => name === last || name.endsWith(`/${last}`),
  ];
  for (const fits of ways) {
    const [file, ...also] = files.filter(({ name }) => fits(plainPath(name)));
    if (file) return { file, also: also.map(({ name }) => name) };
  }
  return undefined;
}

/** What is to be said where more than one file may be meant; nothing where it is plain. */
export function ambiguousFile(path: string, found: NamedFile<{ readonly name: string }>): string | undefined {
  if (found.also.length === 0) return undefined;
  const others = found.also.map((name) => `“${name}”`).join(', ');
  return `“${path}” may be “${found.file.name}” or ${others}; the first was taken. Choose only one of them if that is wrong.`;
}

function plainPath(path: string): string {
  const parts: string[] = [];
  for (const part of path.replace(/\\/g, '/').toLowerCase().split('/')) {
    if (part === '' || part === '.') continue;
    if (part === '..' && parts.length > 0) parts.pop();
    else if (part !== '..') parts.push(part);
  }
  return parts.join('/');
}
