import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import type { BrelvinDocument, Transaction } from '@brelvin/contract';
import { applyChanges, UnfitChange } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { EditJournal, type KeptEdit } from '../shared/documents/edit-journal';
import { newId } from '../shared/documents/new-id';
import { Notices } from '../shared/notices/notices';

/** Edits of an earlier visit that no server has: materials offer them on the Bench, all other documents in the Library. */
@Injectable({ providedIn: 'root' })
export class LeftEdits {
  private readonly api = inject(DocumentApi);
  private readonly journal = inject(EditJournal);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);

  async offer(): Promise<void> {
    const all = await this.journal.left();
    for (const id of new Set(all.map(({ document }) => document))) {
      const left = all.filter(({ document }) => document === id);
      const name = left.at(-1)?.name ?? '';
      const words = `“${name}” has edits that were never saved; they are kept in this browser.`;
      const format = await this.api.read(id).then(
        ({ document }) => document.format,
        () => undefined,
      );
      const open = { words: 'Open it', run: () => void this.router.navigate(['/bench', id]) };
      const putIn = { words: 'Put in again', run: () => void this.putIn(id, name) };
      const forget = { words: 'Forget', run: () => this.journal.drop(left.map((each) => each.id)) };
      this.notices.say(words, format === 'brelvin-material' ? [open] : [putIn, forget]);
    }
  }

  /** As steps of today, on top of what is stored; they stay in the journal until they are. */
  private async putIn(id: string, name: string): Promise<void> {
    try {
      // Another window may have put them in, or forgotten them, since they were offered.
      const left = await this.journal.left(id);
      const [{ step, document }, { steps }] = await Promise.all([this.api.read(id), this.api.history(id)]);
      const saved = new Set(steps.map((each) => each.id));
      const { fitting, unfit } = sorted(
        document,
        left.filter((each) => !saved.has(each.id)),
      );
      if (fitting.length > 0) await this.api.append(id, step, fitting);
      this.journal.drop(left.map((each) => each.id));
      const lost = unfit.map(({ transaction }) => `“${transaction.label}”`).join(', ');
      this.notices.say(`“${name}” has its edits again.${lost && ` These did not fit any more: ${lost}.`}`);
    } catch (error) {
      this.notices.say(
        `The edits of “${name}” could not be put in: ${error instanceof Error ? error.message : String(error)} They are still kept here.`,
        [{ words: 'Try again', run: () => void this.putIn(id, name) }],
      );
    }
  }
}

function sorted(document: BrelvinDocument, left: readonly KeptEdit[]): { fitting: Transaction[]; unfit: KeptEdit[] } {
  const [fitting, unfit]: readonly [Transaction[], KeptEdit[]] = [[], []];
  let now = document;
  for (const each of left) {
    const { label, changes } = each.transaction;
    try {
      now = applyChanges(now, changes);
      fitting.push({ id: newId(), label, changes });
    } catch (error) {
      if (!(error instanceof UnfitChange)) throw error;
      unfit.push(each);
    }
  }
  return { fitting, unfit };
}
