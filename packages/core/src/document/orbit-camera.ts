/** Where the eye is: it looks at `target` from `distance`, turned by `azimuth` round Y and `elevation` above the horizon. */
export interface OrbitCamera {
  readonly target: readonly number[];
  /** Metres. */
  readonly distance: number;
  /** Radians; 0 looks from +z, positive from the right. */
  readonly azimuth: number;
  /** Radians, −π/2…π/2. */
  readonly elevation: number;
  /** Vertical field of view in radians. */
  readonly fieldOfView: number;
  /** Without perspective: as large as at the target's distance, everywhere. */
  readonly orthographic?: boolean;
}
