import { eyeDirection, eyePosition, type OrbitCamera } from '../scene/camera';
import type { FrameItem } from './frame-item';
import type { MaterialPipelines } from './material-pipelines';

/** Whether something behind a surface is seen through it. */
export function isSeenThrough(surface: MaterialPipelines | undefined): boolean {
  const opacity = surface?.compiled.opacity;
  return opacity === 'blend' || opacity === 'add' || opacity === 'unsorted';
}

/** Whether it is laid over in no order, together with others of its kind. */
export function isUnordered({ surface }: FrameItem): boolean {
  return surface?.compiled.opacity === 'unsorted';
}

/** Whether a surface is drawn after all others: it is seen through, or looks at what is behind it. */
export function isDrawnLater({ surface }: FrameItem): boolean {
  return isSeenThrough(surface) || surface?.compiled.readsSceneColour === true;
}

/** What is drawn later, as it is laid over each other: by the parts' order, then the farther ones first. */
export function farFirst(items: readonly FrameItem[], camera: OrbitCamera): FrameItem[] {
  const way = eyeDirection(camera);
  const eye = eyePosition(camera);
  const away = ({ part }: FrameItem): number => {
    const middle = part?.middle ?? [0, 0, 0];
    if (camera.orthographic) return -middle.reduce((sum, each, axis) => sum + each * (way[axis] ?? 0), 0);
    return Math.hypot(...middle.map((each, axis) => each - (eye[axis] ?? 0)));
  };
  const order = ({ part }: FrameItem): number => part?.drawOrder ?? 0;
  return items
    .map((item) => ({ item, far: away(item) }))
    .sort((a, b) => order(a.item) - order(b.item) || b.far - a.far)
    .map(({ item }) => item);
}
