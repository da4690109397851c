/** Files that came together, by what they may become. */
export interface SortedFiles {
  /** Brelvin files. */
  readonly documents: readonly File[];
  /** Meshes; what they name is among `all`. */
  readonly meshes: readonly File[];
  /** Pictures whose light goes beyond white. */
  readonly environments: readonly File[];
  /** Images, and zips of them. */
  readonly images: readonly File[];
  readonly others: readonly File[];
  readonly all: readonly File[];
}

const DOCUMENT = /\.brelvin$/i;
const MESH = /\.(glb|gltf|obj)$/i;
const ENVIRONMENT = /\.(hdr|pic|exr)$/i;
const IMAGE = /\.(png|jpe?g|webp|zip)$/i;
/** What lies beside a mesh and is named by it. */
const BESIDE_MESH = /\.(bin|mtl)$/i;

/** Sorts files by their names. Images beside a mesh belong to it. */
export function sortedFiles(all: readonly File[]): SortedFiles {
  const named = (pattern: RegExp): File[] => all.filter(({ name }) => pattern.test(name));
  const meshes = named(MESH);
  const images = meshes.length > 0 ? [] : named(IMAGE);
  const known = [DOCUMENT, MESH, ENVIRONMENT, IMAGE, ...(meshes.length > 0 ? [BESIDE_MESH] : [])];
  const others = all.filter(({ name, type }) => !known.some((each) => each.test(name)) && !type.startsWith('image/'));
  return { documents: named(DOCUMENT), meshes, environments: named(ENVIRONMENT), images, others, all };
}
