import { strFromU8 } from 'fflate';
import { ImportRefused, MOST_CORNERS, type ImportedPiece } from '../imported-scene';
import { GrowingFloats } from './growing-floats';

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
    const pieces = [...this.pieces.values()].filter(({ positions }) => positions.length > 0).map((each) => finished(each, this.coloured));
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
        return this.uvs.push(u, 1 - v);
      }
      case 'vn': {
        const [x = 0, y = 1, z = 0] = numbers(rest);
        return this.normals.push(x, y, z);
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
    this.positions.push(x, y, z);
    // Six numbers are a position and a colour; four are a position and a weight.
    const [red = 1, green = 1, blue = 1] = values.length >= 6 ? values.slice(3, 6) : [];
    if (values.length >= 6) this.coloured = true;
    this.colours.push(red, green, blue);
  }

  /** A polygon as a fan of triangles round its first corner. */
  private face(rest: string): void {
    const corners = rest.split(/\s+/);
    if (corners.length > MOST_SIDES)
      throw new ImportRefused(
        `Line ${this.line}: a polygon has ${corners.length} corners; at most ${MOST_SIDES} are taken. Triangulate the mesh.`,
      );
    if (corners.length < 3) {
      this.left.set('faces of less than three corners', (this.left.get('faces of less than three corners') ?? 0) + 1);
      return;
    }
    this.corners += (corners.length - 2) * 3;
    if (this.corners > MOST_CORNERS)
      throw new ImportRefused(`It has more than ${MOST_CORNERS / 3e6} million triangles. Make it lighter in the program it comes from.`);
    const piece = (this.piece ??= this.open());
    const read = corners.map((corner) => this.corner(corner));
    for (let at = 1; at + 1 < read.length; at++) for (const each of [read[0], read[at], read[at + 1]]) if (each) this.put(piece, each);
  }

  /** Numbers from 1, or from the last one backwards. */
  private corner(text: string): readonly [number, number, number] {
    const [position = '', uv = '', normal = ''] = text.split('/');
    return [
      this.index(position, this.positions.length / 3, 'vertex'),
      uv === '' ? -1 : this.index(uv, this.uvs.length / 2, 'texture vertex'),
      normal === '' ? -1 : this.index(normal, this.normals.length / 3, 'normal'),
    ];
  }

  private index(text: string, count: number, what: string): number {
    const number = Number(text);
    const index = number < 0 ? count + number : number - 1;
    if (!Number.isInteger(index) || index < 0 || index >= count)
      throw new ImportRefused(
        `Line ${this.line}: a face names ${what} “${text.slice(0, 20)}”, but there are only ${count} so far. Export it again.`,
      );
    return index;
  }

  private put(piece: OpenPiece, [position, uv, normal]: readonly [number, number, number]): void {
    piece.positions.push(this.positions.at(position * 3), this.positions.at(position * 3 + 1), this.positions.at(position * 3 + 2));
    if (this.coloured)
      piece.colours.push(this.colours.at(position * 3), this.colours.at(position * 3 + 1), this.colours.at(position * 3 + 2));
    else piece.colours.push(1, 1, 1);
    if (uv < 0) piece.hasUvs = false;
    piece.uvs.push(uv < 0 ? 0 : this.uvs.at(uv * 2), uv < 0 ? 0 : this.uvs.at(uv * 2 + 1));
    if (normal < 0) piece.hasNormals = false;
    piece.normals.push(
      ...(normal < 0 ? [0, 0, 0] : [this.normals.at(normal * 3), this.normals.at(normal * 3 + 1), this.normals.at(normal * 3 + 2)]),
    );
  }

  private open(): OpenPiece {
    const key = `${this.object} ${this.wears ?? ''} ${this.smooth}`;
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
      hasUvs: true,
      hasNormals: true,
    };
    this.pieces.set(key, piece);
    return piece;
  }
}

function numbers(text: string): number[] {
  return text.split(/\s+/).map(Number);
}

function finished(piece: OpenPiece, coloured: boolean): ImportedPiece & { wears?: string } {
  const { name, wears, smooth, positions, uvs, normals, colours, hasUvs, hasNormals } = piece;
  const rgba = colours.finish();
  return {
    name,
    wears,
    positions: positions.finish(),
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
