import type { LightRig, NearOcclusion } from '@brelvin/contract';
import { demoEnvironment } from './demo-environments';
import { newRig } from '../document/new-documents';
import { newLight, STILL_LIGHT } from '../document/new-lights';

const FADING = { falloff: 'windowed', range: 9 } as const;
const NEAR: NearOcclusion = { radius: 0.5, strength: 1 };
const BARELY = { colour: [1, 0.9, 0.8], intensity: 0.03 };

/** The light of the lantern loft. */
export const DEMO_RIGS: readonly { readonly id: string; readonly document: LightRig }[] = [
  {
    id: 'rig-north-window',
    document: {
      ...newRig('North window'),
      sun: newLight('sun', { casts: true, softness: 0.09 }),
      ambient: newLight('ambient', { colour: [0.78, 0.88, 1], intensity: 0.05 }),
      environment: demoEnvironment('loft-window', { intensity: 0.22, shows: false }),
      occlusion: NEAR,
    },
  },
  {
    id: 'rig-dusk-quay',
    document: {
      ...newRig('Dusk quay'),
      sun: newLight('sun', { direction: [-0.8, 0.24, 0.55], colour: [1, 0.56, 0.28], intensity: 1.3, casts: true, softness: 0.05 }),
      ambient: newLight('ambient', { on: false }),
      lights: {
        sky: newLight('hemisphere', { name: 'Sky over the quay', colour: [0.4, 0.5, 0.85], ground: [0.24, 0.17, 0.2], intensity: 0.12 }),
      },
      background: [0.05, 0.035, 0.035],
      backgroundTop: [0.014, 0.02, 0.05],
      environment: demoEnvironment('quay-at-dusk', { intensity: 0.6, blur: 0.2 }),
      occlusion: NEAR,
    },
  },
  {
    id: 'rig-lamp-room',
    document: {
      ...newRig('Lamp room'),
      sun: newLight('sun', { on: false }),
      ambient: newLight('ambient', BARELY),
      lights: {
        bench: newLight('spot', {
          name: 'Lamp on the bench',
          position: [1.5, 1.3, 1.9],
          direction: [0.55, 0.55, 0.63],
          cone: [0.7, 1.1],
          casts: true,
          softness: 0.05,
          colour: [1, 0.72, 0.42],
          intensity: 5,
          ...FADING,
        }),
        shelf: newLight('point', {
          name: 'Lamp on the shelf',
          position: [-2, 1.6, 0.4],
          colour: [1, 0.5, 0.3],
          intensity: 3,
          ...FADING,
          order: 1,
        }),
        hall: newLight('point', {
          name: 'Light from the hall',
          position: [0.4, 0.6, -2.2],
          colour: [0.6, 0.75, 1],
          intensity: 2.4,
          ...FADING,
          order: 2,
        }),
      },
      background: [0.012, 0.012, 0.012],
      environment: demoEnvironment('night-harbour', { intensity: 0.35 }),
      occlusion: NEAR,
    },
  },
  {
    id: 'rig-white-room',
    document: {
      ...newRig('White room'),
      sun: newLight('sun', { on: false }),
      ambient: newLight('ambient', { intensity: 1 }),
      background: [1, 1, 1],
    },
  },
  {
    id: 'rig-moving-lamp',
    document: {
      ...newRig('Moving lamp'),
      sun: newLight('sun', { on: false }),
      ambient: newLight('ambient', BARELY),
      lights: {
        lamp: newLight('point', {
          name: 'Swinging lamp',
          position: [0, 1.1, 2],
          colour: [1, 0.78, 0.5],
          intensity: 4,
          falloff: 'inverseSquare',
          motion: { ...STILL_LIGHT, kind: 'sway', speed: 0.25, reach: 1.8 },
        }),
      },
      background: [0.014, 0.014, 0.014],
      occlusion: NEAR,
    },
  },
];
