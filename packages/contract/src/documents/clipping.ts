import { object, oneOf, version, type TypeOf } from '../schema/schema';
import { graphFields } from './graph';
import { groups, images, parameters } from './material';

export const CLIPPING_VERSION = 1;

export const CLIPPING = object({
  format: oneOf(['brelvin-nodes']),
  version: version(CLIPPING_VERSION),
  ...graphFields,
  parameters,
  groups,
  images,
});

/** What the clipboard holds: nodes, and all that they need. */
export interface Clipping extends TypeOf<typeof CLIPPING> {}
