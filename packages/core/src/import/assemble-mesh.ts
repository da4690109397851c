import type { MadeForMesh, MeshSource } from '@brelvin/contract';
import { boundsOf, VERTEX_FIELDS, type MeshData, type MeshPart } from '../mesh/mesh';
import { facesInwards } from '../mesh/enclosed-volume';
import { uvGap } from '../mesh/uv-gap';
import { placedPiece } from './placed-piece';
import { Corners } from './corners';
import { ImportRefused, MOST_CORNERS, type ImportedPiece } from './imported-scene';
import { faceNormal, makeNormals } from './make-normals';
import { makeSecondUvs } from './make-second-uvs';
import { isMirrored, makeTangents } from './make-tangents';
import { makeUvs } from './make-uvs';

/** A mesh of ours, and what is known of it besides its triangles. */
export interface AssembledMesh {
  readonly mesh: MeshData;
  readonly facts: Pick<MeshSource, 'parts' | 'triangles' | 'made' | 'gap' | 'mirrored' | 'inwards'>;
  /** Of each part, the number of its material in the scene. */
  readonly materials: readonly (number | undefined)[];
  /** What was mended or made, in sentences. */
  readonly words: readonly string[];
}

const MADE_WORDS: Readonly<Record<MadeForMesh, string>> = {
  normals: 'It has no normals',
  tangents: 'It has no tangents',
  uvs: 'It has no UVs',
  secondUvs: 'It has no second UVs',
};
const MADE_HOW: Readonly<Record<MadeForMesh, string>> = {
  normals: 'they were made from its faces',
  tangents: 'they were made from its UVs',
  uvs: 'a box was wrapped round it',
  secondUvs: 'a set without overlaps was made, for baked light',
};

/**
 * Makes one mesh of a file's pieces: in world space, with all that shading needs.
 *
 * @param onShare told the part that is done, 0…1
 * @throws ImportRefused
 */
export function assembleMesh(pieces: readonly ImportedPiece[], onShare: (share: number) => void = () => undefined): AssembledMesh {
  const total = pieces.reduce((sum, { indices, positions }) => sum + (indices?.length ?? positions.length / 3), 0);
  if (total === 0) throw new ImportRefused('It holds no triangles.');
  if (total > MOST_CORNERS)
    throw new ImportRefused(
      `It has ${Math.round(total / 3e6)} million triangles; at most ${MOST_CORNERS / 3e6} are taken. Make it lighter in the program it comes from.`,
    );
  const made = new Map<MadeForMesh, number>();
  let dropped = 0;
  const turned: string[] = [];
  const whole: { corners: Corners; name: string; material?: number }[] = [];
  const names = new Set<string>();
  pieces.forEach((piece, index) => {
    const placed = placedPiece(piece);
    dropped += placed.dropped;
    onShare((index + 0.3) / pieces.length);
    if (placed.corners.indices.length === 0) return;
    if (piece.normals && windsAgainst(placed.corners)) {
      turnTriangles(placed.corners);
      turned.push(piece.name);
    }
    for (const each of complete(placed.corners, piece)) made.set(each, (made.get(each) ?? 0) + 1);
    onShare((index + 1) / pieces.length);
    whole.push({ corners: placed.corners, name: freeName(piece.name, names), material: piece.material });
  });
  if (whole.length === 0) throw new ImportRefused('None of its triangles can be used: their corners have no place.');
  const { corners, parts } = joined(whole);
  // One set for all parts, so that they do not lie on each other.
  if (!corners.fields.has('uvs2')) makeSecondUvs(corners);
  const mesh = meshOf(corners, parts);
  const words = [...made].map(([what, count]) => {
    const some = count < whole.length ? ` in ${count} of ${whole.length} parts` : '';
    return `${MADE_WORDS[what]}${some}: ${what === 'secondUvs' && some ? 'there the first ones stand in' : MADE_HOW[what]}.`;
  });
  if (turned.length > 0) {
    const which =
      turned.length === whole.length
        ? 'Its triangles'
        : `The triangles of ${turned.slice(0, 3).join(', ')}${turned.length > 3 ? ' and others' : ''}`;
    words.push(`${which} went round against their normals: they were turned.`);
  }
  const facts = meshFacts(mesh, [...made.keys()]);
  if (facts.inwards) words.push('It is inside out: its faces look inwards. The check “inside out” offers what mends it.');
  if (dropped > 0)
    words.push(
      `${dropped} ${dropped === 1 ? 'triangle was' : 'triangles were'} left out: a corner had no place (not a number, or infinite).`,
    );
  return {
    mesh,
    facts,
    materials: whole.map(({ material }) => material),
    words,
  };
}

/** What a set keeps of a mesh of a file besides its triangles. @param made what the file did not have */
export function meshFacts(mesh: MeshData, made: readonly MadeForMesh[]): AssembledMesh['facts'] {
  return {
    parts: mesh.parts.map(({ name }) => name),
    triangles: mesh.indices.length / 3,
    made,
    gap: Math.min(uvGap(mesh), 1e6),
    mirrored: runsBothWays(mesh),
    ...(facesInwards(mesh) ? { inwards: true } : {}),
  };
}

/** Whether nearly all triangles go round the other way than their normals point. */
function windsAgainst(corners: Corners): boolean {
  const [positions, normals] = [corners.get('positions'), corners.get('normals')];
  let [against, all] = [0, 0];
  for (let at = 0; at < corners.indices.length; at += 3) {
    const [x, y, z] = faceNormal(positions, corners.indices, at);
    let along = 0;
    for (let corner = 0; corner < 3; corner++) {
      const vertex = (corners.indices[at + corner] ?? 0) * 3;
      along += x * (normals[vertex] ?? 0) + y * (normals[vertex + 1] ?? 0) + z * (normals[vertex + 2] ?? 0);
    }
    all++;
    if (along < 0) against++;
  }
  return against > 0.9 * all;
}

function turnTriangles({ indices }: Corners): void {
  for (let at = 0; at < indices.length; at += 3) {
    const second = indices[at + 1] ?? 0;
    indices[at + 1] = indices[at + 2] ?? 0;
    indices[at + 2] = second;
  }
}

/** Makes what a piece does not have, each from what was there or made before. */
function complete(corners: Corners, piece: ImportedPiece): MadeForMesh[] {
  const made: MadeForMesh[] = [];
  if (!piece.normals) {
    makeNormals(corners, piece.flat);
    made.push('normals');
  }
  if (!piece.uvs) {
    makeUvs(corners);
    made.push('uvs');
  }
  if (!piece.tangents || !piece.uvs) {
    makeTangents(corners);
    made.push('tangents');
  }
  if (!piece.uvs2) made.push('secondUvs');
  if (!piece.colours) corners.set('colours', 4, new Float32Array(corners.count * 4).fill(1));
  return made;
}

function freeName(wanted: string, taken: Set<string>): string {
  const base = wanted.trim().slice(0, 100) || 'part';
  let name = base;
  for (let count = 2; taken.has(name); count++) name = `${base} ${count}`;
  taken.add(name);
  return name;
}

function joined(pieces: readonly { readonly corners: Corners; readonly name: string }[]): { corners: Corners; parts: readonly MeshPart[] } {
  const indices = new Uint32Array(pieces.reduce((sum, { corners }) => sum + corners.indices.length, 0));
  const parts: MeshPart[] = [];
  let [first, count] = [0, 0];
  for (const { corners, name } of pieces) {
    const start = count;
    indices.set(
      corners.indices.map((each) => each + start),
      first,
    );
    parts.push({ name, first, count: corners.indices.length });
    first += corners.indices.length;
    count += corners.count;
  }
  const whole = new Corners(count, indices);
  const someSecond = pieces.some(({ corners }) => corners.fields.has('uvs2'));
  for (const [name, size] of VERTEX_FIELDS) {
    if (name === 'uvs2' && !someSecond) continue;
    const values = new Float32Array(count * size);
    let start = 0;
    for (const { corners } of pieces) {
      // Where only other parts have second UVs, the first ones stand in.
      values.set(corners.fields.has(name) ? corners.get(name) : corners.get('uvs'), start * size);
      start += corners.count;
    }
    whole.set(name, size, values);
  }
  return { corners: whole, parts };
}

function meshOf(corners: Corners, parts: readonly MeshPart[]): MeshData {
  const positions = corners.get('positions');
  return {
    positions,
    normals: corners.get('normals'),
    tangents: corners.get('tangents'),
    uvs: corners.get('uvs'),
    uvs2: corners.get('uvs2'),
    colours: corners.get('colours'),
    indices: corners.indices,
    parts,
    bounds: boundsOf(positions),
    closed: false,
  };
}

function runsBothWays({ uvs, indices }: MeshData): boolean {
  let mirrored = 0;
  for (let at = 0; at < indices.length; at += 3) if (isMirrored(uvs, indices, at)) mirrored++;
  const share = mirrored / Math.max(indices.length / 3, 1);
  return share > 0.01 && share < 0.99;
}
