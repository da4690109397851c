import type { MeshData } from '../mesh';
import { surfacePoint } from '../parametric';
import { PatchBuilder, type SurfacePoint, type Vector3 } from '../patch';

type Place = (u: number, v: number) => Vector3;

/** The direction on a unit sphere; u round from the back to the east, v from the north pole down. */
function sphereAt(u: number, v: number): Vector3 {
  const [around, down] = [u * 2 * Math.PI, v * Math.PI];
  return [-Math.sin(around) * Math.sin(down), Math.cos(down), -Math.cos(around) * Math.sin(down)];
}

function smooth(low: number, high: number, value: number): number {
  const t = Math.min(Math.max((value - low) / (high - low), 0), 1);
  return t * t * (3 - 2 * t);
}

/** A carved head: longer than wide, with a narrow chin, a brow, and cheeks. */
const skull: Place = (u, v) => {
  const [x, y, z] = sphereAt(u, v);
  const chin = 1 - 0.34 * smooth(-0.15, -1, y);
  const front = Math.max(z, 0);
  const cheek = 0.05 * Math.exp(-((Math.abs(x) - 0.45) ** 2) * 18 - (y + 0.3) ** 2 * 14) * front;
  return [x * 0.78 * chin, y * 0.98, z * 0.84 * chin + cheek + 0.05 * front];
};

const nose: Place = (u, v) => {
  const [x, y, z] = sphereAt(u, v);
  const taper = 1 - 0.45 * smooth(-0.4, 1, y);
  return [x * 0.13 * taper, y * 0.2 - 0.14, z * 0.17 * taper + 0.84];
};

const neck: Place = (u, v) => {
  const around = u * 2 * Math.PI;
  const radius = 0.3 + 0.06 * (2 * v - 1) ** 2;
  return [-Math.sin(around) * radius, -0.72 - v * 0.55, -Math.cos(around) * radius];
};

/** A cap of hair whose fringe hangs in front of the upper eyes. */
const hair: Place = (u, v) => {
  const [x, , z] = sphereAt(u, 0.5);
  const front = smooth(0.2, 0.9, z);
  const strands = 1 + 0.1 * front * Math.sin(u * 2 * Math.PI * 14);
  // The hem: deep in the nape, over the brows in front.
  const down = v * (0.74 - 0.27 * front * strands) * Math.PI;
  const lift = 1.09 + 0.05 * front * v;
  const [sx, sy, sz] = [x * Math.sin(down), Math.cos(down), z * Math.sin(down)];
  return [sx * 0.78 * lift, sy * 0.98 * lift + 0.02, sz * 0.84 * lift + 0.05 * Math.max(sz, 0)];
};

function eye(side: 1 | -1): Place {
  return (u, v) => {
    const [x, y, z] = sphereAt(u, v);
    return [side * 0.3 + x * 0.15, 0.03 + y * 0.19, 0.87 + z * 0.09 - Math.abs(side * 0.3 + x * 0.15) * 0.34];
  };
}

function brow(side: 1 | -1): Place {
  return (u, v) => {
    const [x, y, z] = sphereAt(u, v);
    const along = side * 0.3 + x * 0.2;
    return [along, 0.3 + y * 0.035 - (Math.abs(along) - 0.28) ** 2 * 0.8, 0.88 + z * 0.04 - Math.abs(along) * 0.36];
  };
}

/** A puppet's head that looks along +z: skin, hair, eyes, brows. */
export function puppetHead({ size, segments }: { size: number; segments: number }): MeshData {
  const rings = Math.ceil(segments / 2);
  const small = Math.ceil(segments / 2);
  const at =
    (place: Place) =>
    (u: number, v: number): SurfacePoint =>
      surfacePoint(
        (s, t) => {
          const [x, y, z] = place(s, t);
          return [x * size, y * size, z * size];
        },
        u,
        v,
      );
  return new PatchBuilder()
    .patch('skin', segments, rings, at(skull))
    .patch('skin', small, small, at(nose))
    .patch('skin', segments, 8, at(neck))
    .patch('hair', segments * 2, rings, at(hair))
    .patch('eyes', small, small, at(eye(1)))
    .patch('eyes', small, small, at(eye(-1)))
    .patch('brows', small, 10, at(brow(1)))
    .patch('brows', small, 10, at(brow(-1)))
    .finish({ closed: false });
}
