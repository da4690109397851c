import { vec4 } from 'gl-matrix';
import {
  clipFromWorld,
  dolly,
  eyeDirection,
  eyePosition,
  framePoints,
  orbit,
  pan,
  sightLine,
  START_CAMERA,
  type OrbitCamera,
} from './camera';
import { approach } from './damping';
import { DIAL_HORIZON, dialFromDirection, directionFromDial } from './light-dial';

function onScreen(camera: OrbitCamera, point: readonly number[], aspect = 1): readonly number[] {
  const clip = vec4.transformMat4(
    vec4.create(),
    vec4.fromValues(point[0] ?? 0, point[1] ?? 0, point[2] ?? 0, 1),
    clipFromWorld(camera, aspect),
  );
  return [clip[0] / clip[3], clip[1] / clip[3], clip[2] / clip[3]];
}

const front: OrbitCamera = { ...START_CAMERA, azimuth: 0, elevation: 0 };

describe('Camera', () => {
  it('looks from +z at the target, x to the right, y up, z from 0 to 1', () => {
    expect(eyePosition(front)[2]).toBeCloseTo(5, 6);
    const [x = 9, y = 9, z = 9] = onScreen(front, [0, 0, 0]);
    expect([x, y]).toEqual([0, 0]);
    expect(z > 0 && z < 1).toBeTrue();
    expect(onScreen(front, [0.5, 0, 0])[0]).toBeGreaterThan(0);
    expect(onScreen(front, [0, 0.5, 0])[1]).toBeGreaterThan(0);
    expect(onScreen(front, [0, 0, 1])[2]).toBeLessThan(z);
  });

  it('never tips over the poles', () => {
    const high = orbit(front, 0, 10);
    expect(high.elevation).toBeLessThan(Math.PI / 2);
    expect(Math.hypot(...eyeDirection(high))).toBeCloseTo(1, 6);
  });

  it('moves the target by parts of the picture', () => {
    const moved = pan(front, 0.5, 0);
    const height = 2 * 5 * Math.tan(front.fieldOfView / 2);
    expect(moved.target[0]).toBeCloseTo(height / 2, 5);
    expect(onScreen(moved, moved.target)[0]).toBeCloseTo(0, 5);
  });

  it('stays between near and far', () => {
    expect(dolly(front, 1e-9).distance).toBeGreaterThan(0);
    expect(dolly(front, 1e9).distance).toBeLessThan(1e4);
  });

  it('frames points: all are in the picture, and they fill it, from every side', () => {
    const cube = Array.from({ length: 8 }, (_, corner) => [0, 1, 2].map((axis) => axis + 1 + ((corner >> axis) & 1 ? 0.7 : -0.7)));
    for (const aspect of [0.6, 1, 1.8]) {
      for (const camera of [front, START_CAMERA, orbit(front, 2, 1)]) {
        const framed = framePoints(camera, cube.flat(), aspect);
        const places = cube.flatMap((point) => onScreen(framed, point, aspect).slice(0, 2).map(Math.abs));
        expect(Math.max(...places)).toBeLessThan(1);
        expect(Math.max(...places)).toBeGreaterThan(0.85);
        expect([framed.azimuth, framed.elevation]).toEqual([camera.azimuth, camera.elevation]);
      }
    }
    expect(framePoints(front, [])).toBe(front);
  });

  it('frames a millimetre and a kilometre alike, with depths that tell near from far', () => {
    for (const size of [0.001, 0.02, 1, 600, 2000]) {
      const corners = Array.from({ length: 8 }, (_, corner) => [0, 1, 2].map((axis) => ((corner >> axis) & 1 ? 0.5 : -0.5) * size));
      const framed = framePoints(START_CAMERA, corners.flat());
      const seen = corners.map((point) => onScreen(framed, point));
      for (const [x = 9, y = 9, depth = 9] of seen) {
        expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThan(1);
        expect(depth).toBeGreaterThan(0);
        expect(depth).toBeLessThan(1);
      }
      const depths = seen.map(([, , depth = 0]) => depth);
      expect(Math.max(...depths) - Math.min(...depths)).toBeGreaterThan(1e-3);
    }
  });

  it('knows the line of sight through a place of the picture', () => {
    const { origin, direction } = sightLine(START_CAMERA, 0.3, -0.6, 1.5);
    const far = [0, 1, 2].map((axis) => (origin[axis] ?? 0) + (direction[axis] ?? 0) * 4);
    const [x = 9, y = 9] = onScreen(START_CAMERA, far, 1.5);
    expect(x).toBeCloseTo(0.3, 5);
    expect(y).toBeCloseTo(-0.6, 5);
  });
});

describe('approach', () => {
  it('goes half of the way in one half-life, however it is cut into pictures', () => {
    const wanted = { ...front, azimuth: 1 };
    const once = approach(front, wanted, 0.045);
    const twice = approach(approach(front, wanted, 0.0225), wanted, 0.0225);
    expect(once.azimuth).toBeCloseTo(0.5, 6);
    expect(twice.azimuth).toBeCloseTo(0.5, 6);
  });

  it('arrives', () => {
    const wanted = { ...front, azimuth: 1, distance: 2, target: [1, 0, 0] };
    let camera: OrbitCamera = front;
    let pictures = 0;
    while (camera !== wanted && pictures++ < 200) camera = approach(camera, wanted, 1 / 60);
    expect(camera).toBe(wanted);
    expect(pictures).toBeLessThan(60);
  });
});

describe('Light dial', () => {
  const cameras: readonly OrbitCamera[] = [front, START_CAMERA, orbit(front, 2.4, -0.9)];

  it('has the eye’s own direction in the middle and the horizon on the inner circle', () => {
    for (const camera of cameras) {
      const middle = dialFromDirection(camera, eyeDirection(camera));
      expect(Math.hypot(middle.x, middle.y)).toBeCloseTo(0, 5);
    }
    const right = dialFromDirection(front, [1, 0, 0]);
    expect(right.x).toBeCloseTo(DIAL_HORIZON, 6);
    expect(dialFromDirection(front, [0, 1, 0]).y).toBeCloseTo(DIAL_HORIZON, 6);
    const behind = dialFromDirection(front, [0, 0, -1]);
    expect(Math.hypot(behind.x, behind.y)).toBeCloseTo(1, 6);
  });

  it('leads back to where one came from, in front and behind', () => {
    for (const camera of cameras) {
      for (let step = 0; step < 40; step++) {
        const angle = step * 2.4;
        const radius = 0.02 + (0.96 * step) / 40;
        const place = { x: Math.cos(angle) * radius, y: Math.sin(angle) * radius };
        const direction = directionFromDial(camera, place);
        expect(Math.hypot(...direction)).toBeCloseTo(1, 6);
        const back = dialFromDirection(camera, direction);
        expect(back.x).toBeCloseTo(place.x, 4);
        expect(back.y).toBeCloseTo(place.y, 4);
      }
    }
  });

  it('holds on at the rim', () => {
    const far = directionFromDial(front, { x: 5, y: 0 });
    expect(far[2]).toBeCloseTo(-1, 5);
  });
});
