import { setRig } from '../document/rig-edits';
import type { Check } from './check';

/** The part of a picture above white that nobody needs to be told of. */
const BEARABLE = 0.05;

/** More of the picture is brighter than it can show, and nothing bends it back. */
export const clippedPicture: Check = {
  id: 'clipped-picture',
  find: ({ rig, clipped = 0 }) => {
    if (!rig || rig.curve !== 'none' || clipped <= BEARABLE) return [];
    return [
      {
        place: 'rig/picture',
        title: `${Math.round(clipped * 100)} % of the picture is brighter than white: it is cut off there.`,
        explanation:
          'Where all channels are clipped, colours and shapes are lost. Tone mapping brings bright light back into range; a lower exposure darkens the whole picture.',
        mend: { label: 'Use neutral tone mapping', document: 'rig', edit: setRig('curve', 'neutral', 'Tone mapping') },
        otherMend: { label: 'One stop darker', document: 'rig', edit: setRig('exposure', rig.exposure - 1, 'Exposure') },
      },
    ];
  },
};
