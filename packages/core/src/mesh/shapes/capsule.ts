import { turned, type OutlinePoint } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

export interface CapsuleNumbers {
  readonly radius: number;
  /** Of the straight middle. */
  readonly height: number;
  readonly segments: number;
  readonly rings: number;
}

/** A cylinder between two half spheres; v follows the length of the outline. */
export function capsule({ radius, height, segments, rings }: CapsuleNumbers): MeshData {
  const quarter = (radius * Math.PI) / 2;
  const length = 2 * quarter + height;
  const outline = (v: number): OutlinePoint => {
    const along = v * length;
    if (along >= quarter && along <= quarter + height) return { radius, height: height / 2 - (along - quarter), normal: [1, 0] };
    const angle = along < quarter ? along / radius : (along - height) / radius;
    const middle = along < quarter ? height / 2 : -height / 2;
    return { radius: radius * Math.sin(angle), height: middle + radius * Math.cos(angle), normal: [Math.sin(angle), Math.cos(angle)] };
  };
  return new PatchBuilder().patch('capsule', segments, rings, (u, v) => turned(outline(v), u)).finish({ closed: true });
}
