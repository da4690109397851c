import type { LightRig } from '@brelvin/contract';
import { setEnvironment } from '../document/rig-edits';
import { isPunctual, lightsOf } from '../document/light-rig';
import type { Check } from './check';

/** Something is all around, but it gives no light. */
export const environmentLight: Check = {
  id: 'environment',
  find: ({ rig }) => {
    const environment = rig?.environment;
    if (!rig || !environment) return [];
    const { name, intensity, lights, shows } = environment;
    const place = 'rig/environment';
    if (intensity === 0)
      return [
        {
          place,
          title: `The environment “${name}” lights nothing: its intensity is 0.`,
          explanation: 'It neither lights the meshes nor is seen behind them, and metal and glass have nothing to reflect: they are black.',
          mend: {
            label: 'Give it its full strength',
            document: 'rig',
            edit: setEnvironment('intensity', 1, 'Intensity of the environment'),
          },
        },
      ];
    if (lights || (shows && shines(rig))) return [];
    return [
      {
        place,
        title: `The environment “${name}” lights nothing: its light is switched off${shows ? ', and no lamp shines' : ' and it is not seen either'}.`,
        explanation: shows
          ? 'It is only a picture behind the meshes. With no other light on, whatever does not glow by itself comes out black.'
          : 'It is chosen but not used: nothing of it is in the picture, neither as light nor behind the meshes.',
        mend: { label: 'Let it light the meshes', document: 'rig', edit: setEnvironment('lights', true, 'Light from around') },
      },
    ];
  },
};

function shines(rig: LightRig): boolean {
  return lightsOf(rig).some(([, light]) => light.on && light.intensity > 0 && (isPunctual(light) || light.intensity > 0.05));
}
