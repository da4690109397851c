import { Injectable, inject, type ErrorHandler } from '@angular/core';
import { ApiFailure } from '../api/request';
import { Notices } from './notices';

/** Errors that nobody caught: told quietly, with all that a mend needs to be copied. The page goes on. */
@Injectable({ providedIn: 'root' })
export class FaultHandler implements ErrorHandler {
  private readonly notices = inject(Notices);

  handleError(error: unknown): void {
    console.error(error);
    // What the server said is in words already.
    if (error instanceof ApiFailure) this.notices.say(error.message);
    else this.report('Something in Brelvin went wrong', error);
  }

  /** Says what failed, and offers the details. */
  report(what: string, error: unknown): void {
    const message = error instanceof Error ? error.message : String(error);
    const details = detailsOf(what, error);
    this.notices.say(`${what}: ${message.slice(0, 200)}. What you made is kept; if something looks wrong, reload the page.`, [
      { words: 'Copy details', run: () => void copy(details, this.notices) },
    ]);
  }
}

function detailsOf(what: string, error: unknown): string {
  const stack = error instanceof Error ? (error.stack ?? error.message) : String(error);
  return [what, new Date().toISOString(), location.pathname, navigator.userAgent, stack].join('\n');
}

async function copy(details: string, notices: Notices): Promise<void> {
  try {
    await navigator.clipboard.writeText(details);
    notices.say('The details are in the clipboard.');
  } catch {
    // Without the right to write there, they can be read and chosen by hand.
    notices.say(details);
  }
}
