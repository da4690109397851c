import { inject, Injectable } from '@angular/core';
import type { Material } from '@brelvin/contract';
import { functionKindId, newMaterial } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { NewMaterials } from './new-materials';
import { FunctionShelf } from '../shared/functions/function-shelf';

/** Finds a material on which a function can be seen while it is written. */
@Injectable({ providedIn: 'root' })
export class FunctionOpener {
  private readonly api = inject(DocumentApi);
  private readonly functions = inject(FunctionShelf);
  private readonly materials = inject(NewMaterials);

  /** A material that uses the function; a new one with it as its only node, where there is none. @throws ApiFailure */
  async materialFor(name: string): Promise<string> {
    const { users } = await this.api.functionUsers(name);
    const user = users.find(({ kind }) => kind === 'material');
    if (user) return user.id;
    await this.functions.refresh();
    const id = newId();
    await this.api.create(id, this.trial(name, await this.materials.surroundings(name)));
    return id;
  }

  private trial(name: string, seenIn: Material['seenIn']): Material {
    const material = newMaterial(`Trial of ${name}`, seenIn);
    const kind = this.functions.library().kinds.get(functionKindId(name));
    const [outlet] = kind?.outlets ?? [];
    if (!kind || !outlet) return material;
    const node = { kind: kind.id, rev: 1, x: 200, y: 120, values: {} };
    return {
      ...material,
      surface: { ...material.surface, nodes: { function: node }, ribbons: { 'dock.colour': { from: 'function', outlet: outlet.name } } },
    };
  }
}
