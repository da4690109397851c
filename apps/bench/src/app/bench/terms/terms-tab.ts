import { inject } from '@angular/core';
import { ViewSettings } from '../stage/view-settings';
import type { PanelEntry } from '../registry/panel-entry';

export const TERMS_TAB: PanelEntry = {
  id: 'terms',
  tab: () => {
    const { isWhole } = inject(ViewSettings);
    return () => ({ words: isWhole() ? 'terms' : 'terms ·' });
  },
  view: { opens: 'the terms', load: () => import('../later-panels').then(({ TermsMixer }) => TermsMixer) },
};
