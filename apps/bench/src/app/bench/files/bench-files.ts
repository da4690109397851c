import { DestroyRef, inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { FileDrops } from '../../shared/files/file-drops';
import { FileTaker } from '../../shared/files/file-taker';
import { sortedFiles } from '../../shared/files/sorted-files';
import { Notices } from '../../shared/notices/notices';
import { EnvironmentEditor } from '../lights/environment-editor';
import { MapSetEditor } from '../maps/map-set-editor';
import { Workbench } from '../../shared/documents/workbench';
import { DocumentStore } from '../documents/document-store';
import { SurfaceBinding } from '../editors/surface-binding';
import { BenchPlaces } from '../layout/bench-places';
import { MeshImport } from './mesh-import';

/** Files for the Bench: meshes, and what was dropped where nothing asks for it, each to where files of its kind go. */
@Injectable()
export class BenchFiles {
  private readonly drops = inject(FileDrops);
  private readonly taker = inject(FileTaker);
  private readonly environments = inject(EnvironmentEditor);
  private readonly maps = inject(MapSetEditor);
  private readonly meshes = inject(MeshImport);
  private readonly notices = inject(Notices);
  private readonly places = inject(BenchPlaces);
  private readonly router = inject(Router);
  private readonly store = inject(DocumentStore);
  private readonly surface = inject(SurfaceBinding);
  private readonly workbench = inject(Workbench);

  constructor() {
    inject(DestroyRef).onDestroy(this.drops.takeWith((files) => this.take(files)));
  }

  /** Each mesh stands in a set of its own; the first one's first material comes onto the Bench. */
  async importMeshes(files: readonly File[]): Promise<void> {
    const imported = await this.meshes.takeAll(files, this.store.rigId(), (words) => void this.notices.say(words));
    if (!imported) return;
    if (imported.material !== undefined) await this.router.navigate(['/bench', imported.material]);
    else await this.store.choose('set', imported.set).catch((error: unknown) => this.workbench.tell(wordsOf(error)));
  }

  private take(files: readonly File[]): void {
    const { documents, meshes, environments, images, others } = sortedFiles(files);
    for (const file of documents) void this.taker.take(file);
    if (meshes.length > 0) void this.importMeshes(files);
    else if (others.length > 0) this.drops.refuse(others);
    const [environment] = environments;
    if (environment) {
      this.places.rigPanel.set('environment');
      void this.environments.take([environment]);
    }
    if (images.length === 0) return;
    // Of a material in code they are looked over as maps.
    const inCode = this.store.material()?.code !== undefined;
    this.places.workspace.set(inCode ? 'maps' : 'graph');
    if (inCode) void this.maps.take(images);
    else setTimeout(() => void this.surface.actions()?.takeImages(images));
  }
}

function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
