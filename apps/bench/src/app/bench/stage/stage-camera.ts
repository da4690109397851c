import type { OrbitCamera } from '@brelvin/contract';
import { approach, dolly, framePoints, orbit, pan, START_CAMERA } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';

/** The Stage's camera: hands say where it is to go, and it goes there damped. */
export class StageCamera {
  readonly changes = new BehaviorSubject<OrbitCamera>(START_CAMERA);
  private wanted = START_CAMERA;
  private first?: OrbitCamera;
  /** Radians a second; 0 while it does not turn by itself. */
  private turning = 0;

  constructor(private readonly moved: () => void) {}

  /** Where it is. */
  get now(): OrbitCamera {
    return this.changes.value;
  }

  /** Whether it is on its way. */
  get moves(): boolean {
    return this.turning !== 0 || this.now !== this.wanted;
  }

  orbitBy(azimuth: number, elevation: number): void {
    this.look(orbit(this.wanted, azimuth, elevation));
  }

  dollyBy(factor: number): void {
    this.look(dolly(this.wanted, factor));
  }

  panBy(right: number, up: number): void {
    this.look(pan(this.wanted, right, up));
  }

  /** Goes to where these points, x y z one after the other, fill the picture. */
  frame(points: Float32Array, aspect: number): void {
    this.look(framePoints(this.wanted, points, aspect));
  }

  /** The same at once, for the first time; until somebody takes the camera, it may be done again. */
  frameAtFirst(points: Float32Array, aspect: number): void {
    if (this.first && this.wanted !== this.first) return;
    this.first = this.wanted = framePoints(START_CAMERA, points, aspect);
    this.changes.next(this.wanted);
  }

  /** The same at once, whoever has the camera: something else stands there. */
  frameAnew(points: Float32Array, aspect: number): void {
    this.first = undefined;
    this.frameAtFirst(points, aspect);
  }

  /** Stands where it stood before the page was loaded again. */
  resume(camera: OrbitCamera): void {
    this.first = START_CAMERA;
    this.wanted = camera;
    this.changes.next(camera);
    this.moved();
  }

  /** Keeps what stands there in a picture of another shape, where somebody has the camera. */
  refit(points: Float32Array, before: number, aspect: number): void {
    const away = (shape: number): number => framePoints(this.wanted, points, shape).distance;
    if (this.first !== this.wanted) this.look(dolly(this.wanted, away(aspect) / away(before)));
  }

  /** Goes to a view; the way there is damped, unless little motion is wanted. */
  look(camera: OrbitCamera): void {
    this.wanted = camera;
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) this.changes.next(camera);
    this.moved();
  }

  /** Turns round what it looks at, at so many radians a second; 0 stops it. */
  setTurning(speed: number): void {
    if (speed === this.turning) return;
    this.turning = speed;
    this.moved();
  }

  /** Goes on by so many seconds. @returns whether it did */
  advance(seconds: number): boolean {
    if (this.turning !== 0) {
      const angle = seconds * this.turning;
      this.wanted = orbit(this.wanted, angle, 0);
      this.changes.next(orbit(this.now, angle, 0));
    }
    if (this.now !== this.wanted) this.changes.next(approach(this.now, this.wanted, seconds));
    else if (this.turning === 0) return false;
    return true;
  }
}
