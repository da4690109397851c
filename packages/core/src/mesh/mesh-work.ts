import { extrusionDirections } from './extrusion-directions';
import type { MeshData } from './mesh';
import { interleaved } from './interleaved';
import { sharedUvs } from './shared-uvs';
import { SLOPE_FLOATS, surfaceSlopes } from './surface-slopes';
import { weldedNormals } from './welded-normals';

type Rows = readonly Float32Array<ArrayBuffer>[];

/** What is worked out from a mesh where a program wants it, each as rows of numbers by vertex. */
const WORKS = {
  /** `surfaceSlopes` beside `sharedUvs`. */
  shape: (mesh: MeshData): Rows => [shapeRows(surfaceSlopes(mesh), sharedUvs(mesh))],
  /** `weldedNormals`. */
  welded: (mesh: MeshData): Rows => [weldedNormals(mesh)],
  /** `extrusionDirections`: grown, and at the rim alone where there is one. */
  hull: (mesh: MeshData): Rows => {
    const { grown, rim } = extrusionDirections(mesh);
    return rim ? [grown, rim] : [grown];
  },
};

/** What the vertices of a surface with a shape read, of slopes and of the UVs that vertices in one place share. */
export function shapeRows(slopes: Float32Array, uvs: Float32Array): Float32Array<ArrayBuffer> {
  return interleaved([
    [slopes, SLOPE_FLOATS],
    [uvs, 2],
  ]);
}

export type MeshWork = keyof typeof WORKS;

/** It takes some 3 seconds for each million of triangles. */
export function workOut(mesh: MeshData, work: MeshWork): Rows {
  return WORKS[work](mesh);
}
