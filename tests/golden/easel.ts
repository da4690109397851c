import { openStudio, type Studio } from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';

/** What pictures are drawn with in a page. */
export function easel(): Studio {
  return openStudio(WebGl2Device.create(new OffscreenCanvas(1, 1)));
}
