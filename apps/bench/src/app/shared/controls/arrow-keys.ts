const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/**
 * Goes by an arrow key to the next of several things, round and round, and gives the element that stands for it the focus.
 *
 * @param now the number of the one that holds
 * @returns the number of the next one; nothing for other keys
 */
export function nextByArrow(event: KeyboardEvent, now: number, elements: ArrayLike<HTMLElement>): number | undefined {
  const step = STEPS[event.key];
  if (step === undefined || elements.length === 0) return undefined;
  event.preventDefault();
  event.stopPropagation();
  const next = (now + step + elements.length) % elements.length;
  elements[next]?.focus();
  return next;
}
