import { inject, Injectable } from '@angular/core';
import type { BrelvinDocument, Material } from '@brelvin/contract';
import {
  FIRST_WGSL_CODE,
  newCodeMaterial,
  newMaterial,
  newRig,
  newSet,
  ownName,
  SHARED_SURROUNDINGS,
  startedFrom,
  STARTERS,
} from '@brelvin/core';
import { ApiFailure, DocumentApi } from '../shared/api/document-api';
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
const CODE: Beginning = { id: 'code', title: 'code (GLSL)', help: 'A material that is written as shading code.' };
const WGSL: Beginning = { id: 'wgsl', title: 'code (WGSL)', help: 'The same in the shading language of WebGPU.' };
const OWN_MESH: Beginning = {
  id: 'mesh',
  title: 'a mesh of your own',
  help: 'A plain material; drop or import your mesh.',
  shows: 'parts',
};

export const BEGINNINGS: readonly Beginning[] = [
  PLAIN,
  ...STARTERS.map(({ id, title, help }) => ({ id, title, help })),
  CODE,
  WGSL,
  OWN_MESH,
];

/** Makes materials. They stand in the shared set under the shared light rig, and get their own when these are changed. */
@Injectable({ providedIn: 'root' })
export class NewMaterials {
  private readonly api = inject(DocumentApi);

  /** @returns its id @throws ApiFailure */
  async make(name: string, { id: from }: Beginning = PLAIN): Promise<string> {
    const id = newId();
    await this.api.create(id, this.begun(name, await this.surroundings(name), from));
    return id;
  }

  /** In which a material of this name is to stand. @throws ApiFailure */
  async surroundings(name: string): Promise<Material['seenIn']> {
    const [set, rig] = await Promise.all([
      this.shared(SHARED_SURROUNDINGS.set, newSet(ownName('set', name))),
      this.shared(SHARED_SURROUNDINGS.rig, newRig(ownName('rig', name))),
    ]);
    return { set, rig };
  }

  /** The shared document; one of its own where somebody deleted that. */
  private async shared(id: string, instead: BrelvinDocument): Promise<string> {
    try {
      return (await this.api.read(id)).id;
    } catch (error) {
      if (!(error instanceof ApiFailure) || error.away) throw error;
      const own = newId();
      await this.api.create(own, instead);
      return own;
    }
  }

  private begun(name: string, seenIn: Material['seenIn'], from: string): Material {
    if (from === CODE.id) return newCodeMaterial(name, seenIn);
    if (from === WGSL.id) return newCodeMaterial(name, seenIn, { text: FIRST_WGSL_CODE });
    const starter = STARTERS.find(({ id }) => id === from);
    const material = newMaterial(name, seenIn);
    return starter ? startedFrom(material, starter) : material;
  }
}
