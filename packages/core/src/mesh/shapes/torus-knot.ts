import { vec3 } from 'gl-matrix';
import type { MeshData } from '../mesh';
import { PatchBuilder, type Vector3 } from '../patch';

export interface TorusKnotNumbers {
  readonly radius: number;
  readonly tube: number;
  /** How often it winds round the axis, and through the hole. */
  readonly turns: number;
  readonly windings: number;
  readonly segments: number;
  readonly sides: number;
}

/**
 * A tube along a torus knot, (p, q) = (turns, windings): the curve r = cos(qφ/p) + 2 in cylinder coordinates
 * (Livingston 1993, "Knot Theory", chapter 1), scaled so that the curve fits into `radius`. u runs along the
 * tube, v round it.
 */
export function torusKnot({ radius, tube, turns, windings, segments, sides }: TorusKnotNumbers): MeshData {
  const scale = radius / 3;
  const curve = (t: number): vec3 => {
    const angle = t * 2 * Math.PI;
    const distance = Math.cos(windings * angle) + 2;
    return vec3.fromValues(
      distance * Math.cos(turns * angle) * scale,
      -Math.sin(windings * angle) * scale,
      distance * Math.sin(turns * angle) * scale,
    );
  };
  const derivative = (t: number): vec3 => {
    const angle = t * 2 * Math.PI;
    const distance = Math.cos(windings * angle) + 2;
    const change = -windings * Math.sin(windings * angle);
    const [cos, sin] = [Math.cos(turns * angle), Math.sin(turns * angle)];
    return vec3.fromValues(
      change * cos - distance * turns * sin,
      -windings * Math.cos(windings * angle),
      change * sin + distance * turns * cos,
    );
  };
  return new PatchBuilder()
    .patch('knot', segments, sides, (u, v) => {
      const centre = curve(u);
      const along = vec3.normalize(vec3.create(), derivative(u));
      // Away from the axis, square to the curve: smooth all the way round, and the same at both ends.
      const side = vec3.normalize(vec3.create(), vec3.cross(vec3.create(), along, centre));
      const outwards = vec3.cross(vec3.create(), side, along);
      const angle = v * 2 * Math.PI;
      const normal = vec3.scaleAndAdd(vec3.create(), vec3.scale(vec3.create(), outwards, Math.cos(angle)), side, Math.sin(angle));
      const position = vec3.scaleAndAdd(vec3.create(), centre, normal, tube);
      return { position: triple(position), normal: triple(normal), tangent: triple(along) };
    })
    .finish({ closed: true });
}

function triple(vector: vec3): Vector3 {
  return [vector[0], vector[1], vector[2]];
}
