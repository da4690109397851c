import { strFromU8 } from 'fflate';
import { ImportRefused, MOST_CORNERS, type ImportedPiece } from '../imported-scene';
import { GrowingFloats, GrowingIndices } from './growing-floats';

/** Bytes that are read at a time, to the end of a line. */
const PORTION = 1 << 22;
const NEW_LINE = 10;
/** Corners of one polygon, at most. */
const MOST_SIDES = 10_000;

/** What an OBJ file holds: pieces by object and material, and which MTL files it names. */
export interface ObjFile {
  readonly pieces: readonly (ImportedPiece & { readonly wears?: string })[];
  readonly libraries: readonly string[];
  readonly words: readonly string[];
}

interface OpenPiece {
  readonly name: string;
  readonly wears?: string;
  readonly smooth: boolean;
  readonly positions: GrowingFloats;
  readonly uvs: GrowingFloats;
  readonly normals: GrowingFloats;
  readonly colours: GrowingFloats;
  /** Vertices by position and UV, then by that and the normal: what was there is used again. */
  readonly pairs: Map<number, number>;
  readonly triples: Map<number, number>;
  readonly indices: GrowingIndices;
  hasUvs: boolean;
  hasNormals: boolean;
}

/**
 * Reads Wavefront OBJ (Wavefront, "Advanced Visualizer manual", appendix B1): polygons with texture and normal vertices, groups, objects,
 * materials and smoothing; colours behind positions, as scanners write them. Lines, points and curves are left out and told.
 *
 * @param bytes UTF-8
 * @param onShare told the part that is done, 0…1
 * @throws ImportRefused
 */
export function readObj(bytes: Uint8Array, onShare: (share: number) => void = () => undefined): ObjFile {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff) || bytes[1] === 0)
    throw new ImportRefused('It is text in UTF-16; OBJ files are plain text. Save it as UTF-8.');
  return new ObjReader().read(bytes, onShare);
}

class ObjReader {
  private readonly positions = new GrowingFloats();
  private readonly uvs = new GrowingFloats();
  private readonly normals = new GrowingFloats();
  private readonly colours = new GrowingFloats();
  private readonly pieces = new Map<string, OpenPiece>();
  private readonly libraries: string[] = [];
  private readonly left = new Map<string, number>();
  private piece?: OpenPiece;
  private object = 'mesh';
  private wears?: string;
  private smooth = true;
  private line = 0;
  private corners = 0;
  private coloured = false;

  read(bytes: Uint8Array, onShare: (share: number) => void): ObjFile {
    let start = 0;
    while (start < bytes.length) {
      const whole = start + PORTION >= bytes.length ? bytes.length : bytes.lastIndexOf(NEW_LINE, start + PORTION) + 1;
      // A line longer than a portion is read together with all that follows.
      const end = whole > start ? whole : bytes.length;
      this.lines(strFromU8(bytes.subarray(start, end)));
      start = end;
      onShare(start / bytes.length);
    }
    const pieces = [...this.pieces.values()].filter(({ indices }) => indices.length > 0).map((each) => finished(each, this.coloured));
    const words = [...this.left].map(([what, count]) => `${count} ${what} ${count === 1 ? 'was' : 'were'} left out: only faces are read.`);
    return { pieces, libraries: this.libraries, words };
  }

  private lines(text: string): void {
    const end = text.length;
    let at = 0;
    while (at < end) {
      let stop = text.indexOf('\n', at);
      if (stop < 0 || stop > end) stop = end;
      let line = text.slice(at, stop).trim();
      at = stop + 1;
      this.line++;
      while (line.endsWith('\\') && at < end) {
        stop = text.indexOf('\n', at);
        if (stop < 0) stop = end;
        line = `${line.slice(0, -1)} ${text.slice(at, stop).trim()}`;
        at = stop + 1;
        this.line++;
      }
      if (line !== '' && line[0] !== '#') this.statement(line);
    }
  }

  private statement(line: string): void {
    const gap = line.search(/\s/);
    const word = gap < 0 ? line : line.slice(0, gap);
    const rest = gap < 0 ? '' : line.slice(gap + 1).trim();
    switch (word) {
      case 'v':
        return this.vertex(rest);
      case 'vt': {
        const [u = 0, v = 0] = numbers(rest);
        this.uvs.push(u);
        return this.uvs.push(1 - v);
      }
      case 'vn': {
        const [x = 0, y = 1, z = 0] = numbers(rest);
        this.normals.push(x);
        this.normals.push(y);
        return this.normals.push(z);
      }
      case 'f':
        return this.face(rest);
      case 'o':
      case 'g':
        this.object = rest || 'mesh';
        this.piece = undefined;
        return;
      case 'usemtl':
        this.wears = rest || undefined;
        this.piece = undefined;
        return;
      case 's':
        this.smooth = rest !== 'off' && rest !== '0';
        this.piece = undefined;
        return;
      case 'mtllib':
        this.libraries.push(rest);
        return;
      case 'l':
      case 'p':
      case 'curv':
      case 'surf': {
        const what = { l: 'lines', p: 'points', curv: 'curves', surf: 'surfaces' }[word];
        this.left.set(what, (this.left.get(what) ?? 0) + 1);
        return;
      }
    }
  }

  private vertex(rest: string): void {
    const values = numbers(rest);
    const [x = NaN, y = NaN, z = NaN] = values;
    for (const each of [x, y, z]) this.positions.push(each);
    // Six numbers are a position and a colour; four are a position and a weight.
    const [red = 1, green = 1, blue = 1] = values.length >= 6 ? values.slice(3, 6) : [];
    if (values.length >= 6) this.coloured = true;
    for (const each of [red, green, blue]) this.colours.push(each);
  }

  /** A polygon as a fan of triangles round its first corner. */
  private face(rest: string): void {
    const corners = this.cornersOf(rest);
    const count = corners.length / 3;
    if (count > MOST_SIDES)
      throw new ImportRefused(`Line ${this.line}: a polygon has ${count} corners; at most ${MOST_SIDES} are taken. Triangulate the mesh.`);
    if (count < 3) {
      this.left.set('faces of less than three corners', (this.left.get('faces of less than three corners') ?? 0) + 1);
      return;
    }
    this.corners += (count - 2) * 3;
    if (this.corners > MOST_CORNERS)
      throw new ImportRefused(`It has more than ${MOST_CORNERS / 3e6} million triangles. Make it lighter in the program it comes from.`);
    const piece = (this.piece ??= this.open());
    for (let at = 1; at + 1 < count; at++) {
      this.put(piece, corners, 0);
      this.put(piece, corners, at);
      this.put(piece, corners, at + 1);
    }
  }

  /** Corners of a face, three numbers each: position, UV and normal from 0, or −1 where one is not named. */
  private cornersOf(rest: string): number[] {
    const counts = [this.positions.length / 3, this.uvs.length / 2, this.normals.length / 3];
    const found: number[] = [];
    for (const corner of wordsOf(rest)) {
      const names = corner.split('/');
      for (let kind = 0; kind < 3; kind++) {
        const name = names[kind] ?? '';
        found.push(name === '' && kind > 0 ? -1 : this.index(name, counts[kind] ?? 0, VERTEX_KINDS[kind] ?? ''));
      }
    }
    return found;
  }

  /** A number from 1, or from the last one backwards. */
  private index(name: string, count: number, what: string): number {
    const number = Number(name);
    const index = number < 0 ? count + number : number - 1;
    if (count > MOST_NAMED)
      throw new ImportRefused(`It has more than ${MOST_NAMED} of one kind of vertex. Make it lighter in the program it comes from.`);
    if (!Number.isInteger(index) || index < 0 || index >= count)
      throw new ImportRefused(
        `Line ${this.line}: a face names ${what} “${name.slice(0, 20)}”, but there are only ${count} so far. Export it again.`,
      );
    return index;
  }

  private put(piece: OpenPiece, corners: readonly number[], at: number): void {
    const position = corners[at * 3] ?? 0;
    const uv = corners[at * 3 + 1] ?? -1;
    const normal = corners[at * 3 + 2] ?? -1;
    const pair = numbered(piece.pairs, position * (MOST_NAMED + 1) + uv + 1);
    const count = piece.triples.size;
    const vertex = numbered(piece.triples, pair * (MOST_NAMED + 1) + normal + 1);
    piece.indices.push(vertex);
    if (vertex < count) return;
    for (let axis = 0; axis < 3; axis++) {
      piece.positions.push(this.positions.at(position * 3 + axis));
      piece.colours.push(this.coloured ? this.colours.at(position * 3 + axis) : 1);
      piece.normals.push(normal < 0 ? 0 : this.normals.at(normal * 3 + axis));
      if (axis < 2) piece.uvs.push(uv < 0 ? 0 : this.uvs.at(uv * 2 + axis));
    }
    if (uv < 0) piece.hasUvs = false;
    if (normal < 0) piece.hasNormals = false;
  }

  private open(): OpenPiece {
    const key = [this.object, this.wears, this.smooth].join('\n');
    const known = this.pieces.get(key);
    if (known) return known;
    const piece: OpenPiece = {
      name: this.object,
      wears: this.wears,
      smooth: this.smooth,
      positions: new GrowingFloats(),
      uvs: new GrowingFloats(),
      normals: new GrowingFloats(),
      colours: new GrowingFloats(),
      pairs: new Map(),
      triples: new Map(),
      indices: new GrowingIndices(),
      hasUvs: true,
      hasNormals: true,
    };
    this.pieces.set(key, piece);
    return piece;
  }
}

/** Of any kind of vertex: two of their numbers fit into one without loss. */
const MOST_NAMED = 1 << 26;

/** The number of a key among those there are; the next one where it is new. */
function numbered(known: Map<number, number>, key: number): number {
  const found = known.get(key);
  if (found !== undefined) return found;
  known.set(key, known.size);
  return known.size - 1;
}

const VERTEX_KINDS = ['vertex', 'texture vertex', 'normal'];

/** What stands between white space; nearly all files have one space. */
function wordsOf(text: string): string[] {
  return text.split(text.includes('  ') || text.includes('\t') ? /\s+/ : ' ');
}

function numbers(text: string): number[] {
  return wordsOf(text).map(Number);
}

function finished(piece: OpenPiece, coloured: boolean): ImportedPiece & { wears?: string } {
  const { name, wears, smooth, positions, uvs, normals, colours, indices, hasUvs, hasNormals } = piece;
  const rgba = colours.finish();
  return {
    name,
    wears,
    positions: positions.finish(),
    indices: indices.finish(),
    flat: !smooth,
    ...(hasUvs ? { uvs: uvs.finish() } : {}),
    ...(hasNormals ? { normals: normals.finish() } : {}),
    ...(coloured
      ? {
          colours: Float32Array.from({ length: (rgba.length / 3) * 4 }, (_, at) =>
            at % 4 === 3 ? 1 : (rgba[Math.floor(at / 4) * 3 + (at % 4)] ?? 1),
          ),
        }
      : {}),
  };
}
