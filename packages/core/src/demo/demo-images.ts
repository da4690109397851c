import type { Pixels } from '../image/mips';
import { LABEL_ASSETS, labelPixels, LABELS } from './label-images';
import { TALLOW_ASSET, tallowPixels } from './tallow-matcap';

export interface DemoImage {
  readonly name: string;
  /** What the demo documents call its file; whoever stores the file puts its real address in. */
  readonly asset: string;
  readonly pixels: () => Pixels;
}

/** Images that the demo materials read. */
export const DEMO_IMAGES: readonly DemoImage[] = [
  ...LABELS.map((label): DemoImage => ({ name: `label-${label}.png`, asset: LABEL_ASSETS[label], pixels: () => labelPixels(label) })),
  { name: 'tallow-ball.png', asset: TALLOW_ASSET, pixels: tallowPixels },
];
