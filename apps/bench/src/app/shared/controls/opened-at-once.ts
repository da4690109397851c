import { DOCUMENT } from '@angular/common';
import { ApplicationRef, DestroyRef, inject, provideEnvironmentInitializer, type EnvironmentProviders } from '@angular/core';

const OPENING = ['click', 'dblclick', 'keydown'] as const;

/**
 * What a press or a key opens is in the page, with its focus, before the next key comes. Angular would show it with the next
 * picture: a hand that types on would lose its first letters while the page is busy.
 */
export function provideOpenedAtOnce(): EnvironmentProviders {
  return provideEnvironmentInitializer(() => {
    const page = inject(DOCUMENT);
    const app = inject(ApplicationRef);
    const show = (event: Event): void => {
      if (!isWriting(event)) app.tick();
    };
    for (const type of OPENING) page.addEventListener(type, show);
    inject(DestroyRef).onDestroy(() => {
      for (const type of OPENING) page.removeEventListener(type, show);
    });
  });
}

/** A letter that goes into a text opens nothing, and its text comes with the `input` after it. */
function isWriting(event: Event): boolean {
  const { target } = event;
  if (!(event instanceof KeyboardEvent) || event.key.length !== 1 || event.ctrlKey || event.metaKey) return false;
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA)$/.test(target.tagName));
}
