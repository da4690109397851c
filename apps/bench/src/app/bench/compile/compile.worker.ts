import {
  applyChanges,
  compileMaterial,
  compileOutlets,
  library,
  packOutlets,
  packResult,
  resolveGraph,
  runChecks,
  type Change,
  type CheckInput,
  type Checked,
  type Material,
  type OutletAddress,
  type PackedOutlets,
  type PackedResult,
  type ResolvedGraph,
  type SurfaceVariant,
} from '@brelvin/core';
import { expose } from 'comlink';
import { newId } from '../../shared/documents/new-id';

/** What checks look at besides the material. */
export type Surroundings = Pick<CheckInput, 'set' | 'missingMaterials'>;

/** Replicas of the materials on the Stage, kept up to date by their changes, so that no work ever ships whole documents. */
class MaterialReplicas {
  private readonly materials = new Map<string, Material>();
  /** Of the material that was checked last. */
  private resolved?: { readonly id: string; readonly graph: ResolvedGraph };

  open(id: string, material: Material): void {
    this.materials.set(id, material);
  }

  close(id: string): void {
    this.materials.delete(id);
  }

  apply(id: string, changes: readonly Change[]): void {
    const material = this.materials.get(id);
    if (material) this.materials.set(id, applyChanges(material, changes));
  }

  compile(id: string, variants: readonly SurfaceVariant[]): PackedResult {
    return packResult(compileMaterial(this.replica(id), library(), { variants }));
  }

  outlets(id: string, wanted: readonly OutletAddress[]): PackedOutlets {
    return packOutlets(compileOutlets(this.replica(id), wanted, library()));
  }

  check(id: string, surroundings: Surroundings): Checked {
    const material = this.replica(id);
    const catalogue = library();
    const before = this.resolved?.id === id ? this.resolved.graph : undefined;
    const resolved = resolveGraph(material, catalogue, before);
    this.resolved = { id, graph: resolved };
    return runChecks({ ...surroundings, material, resolved, catalogue, newId });
  }

  private replica(id: string): Material {
    const material = this.materials.get(id);
    if (!material) throw new Error('no such material was opened');
    return material;
  }
}

export type RemoteCompiler = MaterialReplicas;

expose(new MaterialReplicas());
