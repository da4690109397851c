import { computed, inject, Injectable, signal } from '@angular/core';
import type { RigEnvironment } from '@brelvin/contract';
import { environmentAlone, hasOwnLight, swapEnvironment } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { Notices } from '../../shared/notices/notices';
import { RigEditor } from '../editors/rig-editor';

export type KnownEnvironment = Pick<RigEnvironment, 'name' | 'assets' | 'light'>;

/** Which environments there are to choose from, and all that is done with files of them. */
@Injectable()
export class EnvironmentEditor {
  private readonly api = inject(AssetApi);
  private readonly shelf = inject(EnvironmentShelf);
  private readonly rig = inject(RigEditor);
  private readonly notices = inject(Notices);

  /** The workspace’s, and those of six images that were taken in since. */
  readonly known = signal<readonly KnownEnvironment[]>([]);
  /** Why a file was not taken. */
  readonly refusal = signal<string | undefined>(undefined);
  /** What was done to the last file on its way. */
  readonly words = signal<readonly string[]>([]);
  readonly job = this.shelf.job;
  /** Why the environment in use is not in the picture. */
  readonly missing = computed(() => {
    const [failed, used] = [this.shelf.failed(), this.rig.rig().environment];
    if (!failed || failed.assets.join() !== used?.assets.join()) return undefined;
    return `“${used.name}” cannot be shown. ${failed.words} Choose another one, or import its files again.`;
  });

  async refresh(): Promise<void> {
    try {
      const { assets } = await this.api.list({ limit: 100, use: 'environment', sort: 'name' });
      const listed = assets.map(({ name, sha256 }): KnownEnvironment => ({ name: nameOf(name), assets: [sha256] }));
      const own = this.known().filter(({ assets: own }) => own.length > 1);
      this.known.set([...listed, ...own]);
    } catch {
      this.refuse('The environments of the workspace cannot be read now.');
    }
  }

  refuse(words: string): void {
    this.refusal.set(words);
    this.words.set([]);
  }

  /** Puts an environment in the place of the one there is, in one step; nothing takes it away. */
  choose(environment: KnownEnvironment | undefined): void {
    this.refusal.set(undefined);
    this.words.set([]);
    this.rig.do(swapEnvironment(this.rig.rig(), environment));
  }

  /** What comes with light of its own is added to the rig's lights; mostly it is meant to be the light. */
  private offerToLightAlone(name: string): void {
    const rig = this.rig.rig();
    if (!hasOwnLight(rig) || !rig.environment?.lights) return;
    this.notices.say(`“${name}” is the environment now. Its light is added to the sun and the other lights of “${rig.name}”.`, [
      { words: 'Let the environment light alone', run: () => this.rig.do(environmentAlone(this.rig.rig())) },
    ]);
  }

  /** Takes files into the workspace and uses them. */
  async take(files: readonly File[]): Promise<void> {
    this.refusal.set(undefined);
    this.words.set([]);
    try {
      const taken = await this.shelf.take(files);
      if (!taken) return;
      const { words, ...environment } = taken;
      this.choose(environment);
      this.words.set(words);
      this.offerToLightAlone(environment.name);
      if (taken.assets.length > 1) this.known.update((known) => [...known, environment]);
      else await this.refresh();
    } catch (error) {
      this.refuse(error instanceof Error ? error.message : String(error));
    }
  }
}

/** “loft-window.hdr” is called “Loft window”. */
function nameOf(file: string): string {
  const words = file
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return words ? words.charAt(0).toUpperCase() + words.slice(1) : file;
}
