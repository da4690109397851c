import type { Tab } from '../shared/controls/tabs';

export type Panel = 'about' | 'outline' | 'opacity' | 'checks' | 'probe' | 'history';

/** The tabs of the middle panel, with how much there is to mend and to look at. */
export function panelTabs(wrong: number, found: number): readonly Tab<Panel>[] {
  return [
    { value: 'about', words: wrong > 0 ? `to mend ${wrong}` : 'about' },
    { value: 'outline', help: 'The line round what wears this material' },
    { value: 'opacity', help: 'How what is behind this material is seen through it' },
    { value: 'checks', words: found > 0 ? `checks ${found}` : 'checks' },
    { value: 'probe', help: 'Read the values of all nodes at points of the picture (F7)' },
    { value: 'history' },
  ];
}
