import type { RigEnvironment } from '@brelvin/contract';
import {
  generatedEnvironment,
  GENERATED_ENVIRONMENTS,
  type GeneratedEnvironment,
} from '../image/environment/generated/generated-environment';
import type { FloatPicture } from '../image/float-picture';

interface DemoEnvironment {
  readonly id: GeneratedEnvironment;
  readonly name: string;
  /** What the demo documents call its file; whoever stores the file puts its real address in. */
  readonly asset: string;
}

/** The surroundings of the lantern loft. */
export const DEMO_ENVIRONMENTS: Readonly<Record<GeneratedEnvironment, DemoEnvironment>> = {
  'loft-window': { id: 'loft-window', name: 'Loft window', asset: 'a'.repeat(64) },
  'quay-at-dusk': { id: 'quay-at-dusk', name: 'Quay at dusk', asset: 'b'.repeat(64) },
  'night-harbour': { id: 'night-harbour', name: 'Night harbour', asset: 'c'.repeat(64) },
};

const drawn = new Map<GeneratedEnvironment, FloatPicture>();

/** The panorama that a demo document calls by an address; nothing for other addresses. */
export function demoPanorama(asset: string | undefined): FloatPicture | undefined {
  const id = GENERATED_ENVIRONMENTS.find((each) => DEMO_ENVIRONMENTS[each].asset === asset);
  if (!id) return undefined;
  const picture = drawn.get(id) ?? generatedEnvironment(id);
  drawn.set(id, picture);
  return picture;
}

export function demoEnvironment(id: GeneratedEnvironment, changes: Partial<RigEnvironment> = {}): RigEnvironment {
  const { name, asset } = DEMO_ENVIRONMENTS[id];
  return { name, assets: [asset], turn: 0, intensity: 1, lights: true, shows: true, blur: 0.25, ...changes };
}
