import { signal, type Provider, type WritableSignal } from '@angular/core';
import type { LightRig, Material, StageSet } from '@brelvin/contract';
import { applyChanges, type Edit } from '@brelvin/core';
import { DocumentStore, type BenchRole } from '../documents/document-store';
import { OpenFields } from '../documents/open-fields';

/** Documents on the Bench that nothing stores: edits are applied, and listed. */
export class HeldDocuments {
  readonly materialId = signal<string | undefined>('m');
  readonly setId = signal<string | undefined>('s');
  readonly rigId = signal<string | undefined>('r');
  readonly material = signal<Material | undefined>(undefined);
  readonly set = signal<StageSet | undefined>(undefined);
  readonly rig = signal<LightRig | undefined>(undefined);
  readonly edits: { readonly role: BenchRole; readonly edit: Edit; readonly gesture?: string }[] = [];

  edit(role: BenchRole, edit: Edit, gesture?: string): void {
    this.edits.push({ role, edit, gesture });
    const held = this[role] as WritableSignal<Material | StageSet | LightRig | undefined>;
    held.update((document) => document && applyChanges(document, edit.changes));
  }

  addDrafts(): void {}

  get providers(): Provider[] {
    const none = signal(new Map());
    const fields: Partial<OpenFields> = { fields: none, texts: none, problems: none, drawn: () => undefined };
    return [
      { provide: DocumentStore, useValue: this },
      { provide: OpenFields, useValue: fields },
    ];
  }
}
