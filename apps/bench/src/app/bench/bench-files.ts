import { DestroyRef, inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { FileDrops } from '../shared/files/file-drops';
import { FileTaker } from '../shared/files/file-taker';
import { sortedFiles } from '../shared/files/sorted-files';
import { Notices } from '../shared/notices/notices';
import { EnvironmentWork } from './lights/environment-work';
import { MapSetWork } from './maps/map-set-work';
import { MeshImport } from './parts/mesh-import';

/** What files that come in ask of the Bench. */
export interface BenchHands {
  /** The light rig that stands there. */
  rig(): string | undefined;
  /** Whether the material on it is code. */
  inCode(): boolean;
  chooseSet(id: string): Promise<void>;
  /** Environments are shown where they are chosen. */
  showEnvironments(): void;
  showTab(tab: 'maps' | 'graph'): void;
  /** Puts images onto the graph, once it is shown. */
  takeImages(images: readonly File[]): void;
}

/** Files for the Bench: meshes, and what was dropped where nothing asks for it, each to where files of its kind go. */
@Injectable()
export class BenchFiles {
  private readonly drops = inject(FileDrops);
  private readonly taker = inject(FileTaker);
  private readonly environments = inject(EnvironmentWork);
  private readonly maps = inject(MapSetWork);
  private readonly meshes = inject(MeshImport);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly destroyRef = inject(DestroyRef);
  private hands?: BenchHands;

  /** Takes files as long as the Bench is shown. */
  takeWith(hands: BenchHands): void {
    this.hands = hands;
    this.destroyRef.onDestroy(this.drops.takeWith((files) => this.take(files, hands)));
  }

  /** Each mesh stands in a set of its own; the first one's first material comes onto the Bench. */
  async importMeshes(files: readonly File[]): Promise<void> {
    const { hands } = this;
    const imported = await this.meshes.takeAll(files, hands?.rig(), (words) => void this.notices.say(words));
    if (!imported) return;
    if (imported.material === undefined) await hands?.chooseSet(imported.set);
    else await this.router.navigate(['/bench', imported.material]);
  }

  private take(files: readonly File[], hands: BenchHands): void {
    const { documents, meshes, environments, images, others } = sortedFiles(files);
    for (const file of documents) void this.taker.take(file);
    if (meshes.length > 0) void this.importMeshes(files);
    else if (others.length > 0) this.drops.refuse(others);
    const [environment] = environments;
    if (environment) {
      hands.showEnvironments();
      void this.environments.take([environment]);
    }
    if (images.length === 0) return;
    // Of a material in code they are looked over as maps.
    hands.showTab(hands.inCode() ? 'maps' : 'graph');
    if (hands.inCode()) void this.maps.take(images);
    else hands.takeImages(images);
  }
}
