import { boundsOf, placeColours, type MeshData, type MeshPart } from './mesh';

export type Vector3 = readonly [number, number, number];

/** A point of a surface with its frame. */
export interface SurfacePoint {
  readonly position: Vector3;
  readonly normal: Vector3;
  /** Along +u, unit length. */
  readonly tangent: Vector3;
  /** In place of the patch's own u and v. */
  readonly uv?: readonly [number, number];
  readonly uv2?: readonly [number, number];
}

/** Builds a mesh from rectangular patches and lists of triangles. Neighbours of one name are one part. */
export class PatchBuilder {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly tangents: number[] = [];
  private readonly uvs: number[] = [];
  private readonly uvs2: number[] = [];
  private readonly indices: number[] = [];
  private readonly parts: MeshPart[] = [];

  /**
   * Adds a grid of `columns` × `rows` quads. `at(u, v)`: u to the right, v downwards as seen from outside, both 0…1.
   * Quads that have shrunk to a line lose the triangle without area.
   */
  patch(name: string, columns: number, rows: number, at: (u: number, v: number) => SurfacePoint): this {
    const start = this.positions.length / 3;
    const first = this.indices.length;
    for (let row = 0; row <= rows; row++) {
      for (let column = 0; column <= columns; column++) {
        const [u, v] = [column / columns, row / rows];
        this.point(at(u, v), [u, v]);
      }
    }
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const topLeft = start + row * (columns + 1) + column;
        const bottomLeft = topLeft + columns + 1;
        this.triangle(topLeft, bottomLeft, bottomLeft + 1);
        this.triangle(topLeft, bottomLeft + 1, topLeft + 1);
      }
    }
    return this.part(name, first);
  }

  /** Adds triangles over points of their own, counter-clockwise as seen from outside. */
  triangles(name: string, points: readonly SurfacePoint[], indices: readonly number[]): this {
    const start = this.positions.length / 3;
    const first = this.indices.length;
    for (const point of points) this.point(point, [0, 0]);
    for (let at = 0; at < indices.length; at += 3) {
      const [a = 0, b = 0, c = 0] = indices.slice(at, at + 3);
      this.triangle(start + a, start + b, start + c);
    }
    return this.part(name, first);
  }

  private point({ position, normal, tangent, uv, uv2 }: SurfacePoint, own: readonly [number, number]): void {
    this.positions.push(...position);
    this.normals.push(...normal);
    this.tangents.push(...tangent, 1);
    this.uvs.push(...(uv ?? own));
    this.uvs2.push(...(uv2 ?? uv ?? own));
  }

  private part(name: string, first: number): this {
    const count = this.indices.length - first;
    const last = this.parts.at(-1);
    if (last?.name === name) this.parts[this.parts.length - 1] = { ...last, count: last.count + count };
    else this.parts.push({ name, first, count });
    return this;
  }

  private triangle(a: number, b: number, c: number): void {
    if (this.samePlace(a, b) || this.samePlace(b, c) || this.samePlace(c, a)) return;
    this.indices.push(a, b, c);
  }

  private samePlace(a: number, b: number): boolean {
    return [0, 1, 2].every((axis) => Math.abs((this.positions[a * 3 + axis] ?? 0) - (this.positions[b * 3 + axis] ?? 0)) < 1e-9);
  }

  finish({ closed }: { closed: boolean }): MeshData {
    const positions = new Float32Array(this.positions);
    const bounds = boundsOf(positions);
    return {
      closed,
      positions,
      normals: new Float32Array(this.normals),
      tangents: new Float32Array(this.tangents),
      uvs: new Float32Array(this.uvs),
      uvs2: new Float32Array(this.uvs2),
      indices: new Uint32Array(this.indices),
      parts: this.parts,
      bounds,
      colours: placeColours(positions, bounds),
    };
  }
}
