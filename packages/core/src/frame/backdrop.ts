import type { BackgroundFit, LightRig, RigEnvironment } from '@brelvin/contract';
import type { Device, DeviceTexture, DrawCall, PassFormats } from '../device/device';
import type { FrameGlobals } from '../compile/material-values';
import { viewMatrix, type OrbitCamera } from '../scene/camera';
import { levelOfRoughness } from './environment/environment-levels';
import type { ReadyEnvironment } from './environment/environment-passes';
import { FullScreen } from './full-screen';
import type { ImageBank } from './image-bank';
import type { OwnValues } from './own-values';
import type { PicturePart } from './picture-part';
import type { PictureSize } from './picture-part';

/** What is behind the meshes where it is more than one colour: a gradient, a flat image. */
export class Backdrop {
  // Where a floor was laid before it, it fills up what that left open.
  private readonly gradient: FullScreen;
  private readonly image: FullScreen;
  private readonly around: FullScreen;
  private readonly values: OwnValues;
  private readonly aroundValues: OwnValues;

  constructor(device: Device) {
    this.gradient = new FullScreen(device, 'backdrop', 'Backdrop', 'background', 'under');
    this.image = new FullScreen(device, 'backdrop_image', 'Backdrop', 'background', 'under');
    this.around = new FullScreen(device, 'backdrop_environment', 'EnvironmentBackdrop', 'background', 'under');
    this.values = this.gradient.createValues();
    this.aroundValues = this.around.createValues();
  }

  /**
   * Fills up what is there already.
   *
   * @param cleared to the rig's one colour, where nothing else needs to be drawn
   */
  drawCalls(
    rig: LightRig,
    { images, environment, camera }: { readonly images: ImageBank; readonly environment?: ReadyEnvironment; readonly camera: OrbitCamera },
    { whole: size, corner }: PicturePart,
    into: PassFormats,
    cleared: boolean,
  ): DrawCall[] {
    const cube = rig.environment && environment && (rig.environment.blur > 0 ? environment.filtered : environment.sharp);
    if (rig.environment?.shows && cube && !rig.transparent) {
      const values = environmentValues(rig.environment, cube, camera, { whole: size, corner });
      return [this.around.drawCall(this.aroundValues, values, { backdropCube: cube }, into)];
    }
    const { background, backgroundTop = background, backgroundImage, transparent } = rig;
    const seen = transparent ? undefined : backgroundImage && images.find(backgroundImage.image);
    if (transparent || (cleared && !seen && backgroundTop === background)) return [];
    const [wide, high] = seen && backgroundImage ? imageSpan(size, seen, backgroundImage.fit) : [1, 1];
    const values = new Map([
      ['backdropBelow', [...background, 1]],
      ['backdropAbove', [...backgroundTop, 1]],
      ['backdropSize', [size.width, size.height, wide, high]],
      ['backdropCorner', [...corner, 0, 0]],
    ]);
    return [(seen ? this.image : this.gradient).drawCall(this.values, values, seen ? { backdropImage: seen } : {}, into)];
  }
}

/** The sight of an environment: without perspective it is seen as with it. */
function environmentValues(
  { turn, intensity, blur }: RigEnvironment,
  cube: DeviceTexture,
  camera: OrbitCamera,
  { whole: { width, height }, corner }: PicturePart,
): FrameGlobals {
  const view = viewMatrix(camera);
  const axis = (row: number, by: number): number[] => [...[0, 1, 2].map((column) => (view[column * 4 + row] ?? 0) * by), 0];
  const tangent = Math.tan(camera.fieldOfView / 2);
  // A face spans twice the tangent of an eighth of a round.
  const pixelsOfFace = height / tangent;
  const level = blur > 0 ? levelOfRoughness(blur) : Math.max(0, Math.log2(cube.width / pixelsOfFace));
  return new Map([
    ['backdropRight', axis(0, (tangent * width) / height)],
    ['backdropUp', axis(1, tangent)],
    ['backdropAhead', axis(2, -1)],
    ['backdropFrame', [1 / width, 1 / height, Math.cos(turn), Math.sin(turn)]],
    ['backdropLevel', [level, intensity, ...corner]],
  ]);
}

/** How many widths and heights of an image a picture spans. */
export function imageSpan(picture: PictureSize, image: PictureSize, fit: BackgroundFit): [number, number] {
  if (fit === 'stretch') return [1, 1];
  const wider = picture.width / picture.height / (image.width / image.height);
  const byWidth = wider > 1 === (fit === 'cover');
  return byWidth ? [1, 1 / wider] : [wider, 1];
}
