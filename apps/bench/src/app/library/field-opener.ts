import { inject, Injectable } from '@angular/core';
import { newCodedField, newDistanceField, newMaterial, newMesh, newSet, ownName } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { NewMaterials } from './new-materials';

/** Begins fields, and finds a material in whose set one stands, so that it is seen while it is written. */
@Injectable({ providedIn: 'root' })
export class FieldOpener {
  private readonly api = inject(DocumentApi);
  private readonly materials = inject(NewMaterials);

  /** @returns its id @throws ApiFailure */
  async make(name: string, as: 'graph' | 'code'): Promise<string> {
    const id = newId();
    await this.api.create(id, as === 'code' ? newCodedField(name) : newDistanceField(name));
    return id;
  }

  /** A material that was last seen in a set with the field; a new one, in a new set where none shows it. @throws ApiFailure */
  async materialFor(field: string, name: string): Promise<string> {
    const sets = (await this.api.documentUsers(field)).users.filter(({ kind }) => kind === 'set');
    for (const { id } of sets) {
      const seen = (await this.api.documentUsers(id)).users.find(({ kind }) => kind === 'material');
      if (seen) return seen.id;
    }
    const [{ rig }, id] = [await this.materials.surroundings(name), newId()];
    const set = sets[0]?.id ?? (await this.setWith(field, name));
    await this.api.create(id, newMaterial(name, { set, rig }));
    return id;
  }

  private async setWith(field: string, name: string): Promise<string> {
    const id = newId();
    const set = newSet(ownName('set', name), 'field');
    await this.api.create(id, { ...set, meshes: { field: newMesh('field', {}, { name, field }) } });
    return id;
  }
}
