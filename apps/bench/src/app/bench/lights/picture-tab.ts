import type { PanelEntry } from '../registry/panel-entry';

export const PICTURE_TAB: PanelEntry = {
  id: 'picture',
  view: { opens: 'the picture', load: () => import('../later-panels').then(({ PicturePanel }) => PicturePanel) },
};
