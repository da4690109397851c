import { inject, Injectable } from '@angular/core';
import type { Material } from '@brelvin/contract';
import { newCodeMaterial, newMaterial, newRig, newSet, startedFrom, STARTERS } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';

/** Something that a new material can begin with. */
export interface Beginning {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  /** The tab of the work area that is shown first; that of the graph or the code where absent. */
  readonly shows?: string;
}

const PLAIN: Beginning = { id: 'plain', title: 'plain', help: 'One colour under plain matte light, to build on.' };
const CODE: Beginning = { id: 'code', title: 'code', help: 'A material that is written as shading code.' };
const OWN_MESH: Beginning = {
  id: 'mesh',
  title: 'a mesh of your own',
  help: 'A plain material; drop or import your mesh.',
  shows: 'parts',
};

export const BEGINNINGS: readonly Beginning[] = [PLAIN, ...STARTERS.map(({ id, title, help }) => ({ id, title, help })), CODE, OWN_MESH];

/** Makes materials, each with a set and a light rig to stand in. */
@Injectable({ providedIn: 'root' })
export class NewMaterials {
  private readonly api = inject(DocumentApi);

  /** @returns its id @throws ApiFailure */
  async make(name: string, { id: from }: Beginning = PLAIN): Promise<string> {
    const [set, rig, id] = [newId(), newId(), newId()];
    await this.api.create(set, newSet(`Set of ${name}`));
    await this.api.create(rig, newRig(`Light of ${name}`));
    await this.api.create(id, this.begun(name, { set, rig }, from));
    return id;
  }

  private begun(name: string, seenIn: Material['seenIn'], from: string): Material {
    if (from === CODE.id) return newCodeMaterial(name, seenIn);
    const starter = STARTERS.find(({ id }) => id === from);
    const material = newMaterial(name, seenIn);
    return starter ? startedFrom(material, starter) : material;
  }
}
