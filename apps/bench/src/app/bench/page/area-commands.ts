import type { Command } from '../commands/command';

interface Area {
  readonly id: string;
  readonly title: string;
  readonly css: string;
  /** Where the keyboard goes in it; the first thing that takes it where absent. */
  readonly first?: string;
}

/** From the top left to the bottom right, as they stand on the Bench. */
const AREAS: readonly Area[] = [
  { id: 'bar', title: 'Go to the top bar', css: '.bench-bar' },
  { id: 'work', title: 'Go to the graph or the code', css: '.bench-graph', first: '.graph-surface, .cm-content' },
  { id: 'dock', title: 'Go to the dock', css: '.dock:not(.entry)' },
  { id: 'stage', title: 'Go to the Stage', css: '.bench-stage', first: '.stage-canvas' },
  { id: 'parameters', title: 'Go to the parameters', css: '.panel-parameters, [data-tab="parameters"]' },
  { id: 'about', title: 'Go to what is said about the material', css: '.panel-about' },
  { id: 'light', title: 'Go to the light', css: '.panel-light' },
];
const TAKES_KEYS = ':is(button, input, select, textarea, a[href], [tabindex="0"]):not([tabindex="-1"], :disabled)';

/** A key for each area of the Bench: nobody has to press Tab through all that stands between. */
export function areaCommands(): readonly Command[] {
  return AREAS.map((area, index): Command => ({
    id: `area-${area.id}`,
    title: area.title,
    words: 'focus keyboard jump area',
    keys: `Alt Shift ${index + 1}`,
    inText: true,
    run: () => focusArea(area),
  }));
}

function focusArea({ css, first }: Area): void {
  const area = document.querySelector<HTMLElement>(css);
  if (!area) return;
  const start = (first && area.querySelector<HTMLElement>(first)) || firstInside(area) || area;
  if (start.role === 'tab') start.click();
  start.focus();
}

function firstInside(area: HTMLElement): HTMLElement | undefined {
  return [...area.querySelectorAll<HTMLElement>(TAKES_KEYS)].find((each) => each.checkVisibility());
}
