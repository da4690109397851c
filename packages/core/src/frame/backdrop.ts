import type { Device, DrawCall } from '../device/device';
import type { BackgroundFit, LightRig } from '../document/light-rig';
import { FullScreen } from './full-screen';
import type { ImageBank } from './image-bank';
import type { SampleCount } from './surface-pipelines';
import type { UniformBuffer } from './uniform-buffer';
import type { PictureSize } from './uniforms';

/** What is behind the meshes where it is more than one colour: a gradient, a flat image. */
export class Backdrop {
  private readonly values: UniformBuffer;

  private constructor(
    private readonly gradient: FullScreen,
    private readonly image: FullScreen,
  ) {
    this.values = gradient.createValues();
  }

  static async create(device: Device): Promise<Backdrop> {
    const program = (name: string): Promise<FullScreen> => FullScreen.create(device, name, 'Backdrop', [1, 4]);
    return new Backdrop(await program('backdrop'), await program('backdrop_image'));
  }

  /** Nothing where clearing is enough. */
  drawCalls(rig: LightRig, images: ImageBank, size: PictureSize, samples: SampleCount): DrawCall[] {
    const { background, backgroundTop = background, backgroundImage, transparent } = rig;
    const seen = transparent ? undefined : backgroundImage && images.find(backgroundImage.image);
    if (transparent || (!seen && backgroundTop === background)) return [];
    const [wide, high] = seen && backgroundImage ? imageSpan(size, seen, backgroundImage.fit) : [1, 1];
    const values = new Map([
      ['backdropBelow', [...background, 1]],
      ['backdropAbove', [...backgroundTop, 1]],
      ['backdropSize', [size.width, size.height, wide, high]],
    ]);
    return [(seen ? this.image : this.gradient).drawCall(this.values, values, seen ? { backdropImage: seen } : {}, samples)];
  }
}

/** How many widths and heights of an image a picture spans. */
export function imageSpan(picture: PictureSize, image: PictureSize, fit: BackgroundFit): [number, number] {
  if (fit === 'stretch') return [1, 1];
  const wider = picture.width / picture.height / (image.width / image.height);
  const byWidth = wider > 1 === (fit === 'cover');
  return byWidth ? [1, 1 / wider] : [wider, 1];
}
