import { inject, Injectable, signal } from '@angular/core';
import type { MaterialImage } from '@brelvin/contract';
import {
  joinEdits,
  looksLikeMapSet,
  packingOf,
  proposeMapSet,
  putImage,
  wireMapSet,
  wrapsOf,
  type Edit,
  type HeightUse,
  type MapSurface,
  type PackingId,
  type ProposedMap,
  type WiredMap,
} from '@brelvin/core';
import pLimit from 'p-limit';
import { Subject } from 'rxjs';
import { newId } from '../../shared/documents/new-id';
import { ImageShelf } from '../../shared/images/image-shelf';
import { GraphEditor } from '../editors/graph-editor';

/** An image with what is proposed for it. */
export interface MapRow extends ProposedMap {
  readonly image: MaterialImage;
}

/** A set of maps that waits to be looked over. */
export interface MapProposal {
  readonly name: string;
  readonly surface: MapSurface;
  readonly height: HeightUse;
  readonly rows: readonly MapRow[];
  /** Files that were not taken, and why. */
  readonly left: readonly string[];
}

/** Files of a set that are read side by side. */
const READ_AT_ONCE = 3;

/** Sets of maps: taken in from files, looked over, and laid on the surface in one step. */
@Injectable()
export class MapSetEditor {
  private readonly shelf = inject(ImageShelf);
  private readonly editor = inject(GraphEditor);

  readonly proposal = signal<MapProposal | undefined>(undefined);
  /** How many files of a set are read, while that goes on. */
  readonly reading = signal<{ readonly done: number; readonly of: number } | undefined>(undefined);
  /** A set was laid on. */
  readonly wired = new Subject<void>();
  private stopped = false;

  /** Whether files are a set, and not only several images. */
  static fits(files: readonly File[]): boolean {
    return files.some(isZip) || looksLikeMapSet(files.map(({ name }) => name));
  }

  /** Reads files, folders' files or a zip archive, and proposes what to do with them. */
  async take(chosen: readonly File[]): Promise<void> {
    if (this.reading()) return;
    this.stopped = false;
    this.reading.set({ done: 0, of: chosen.length });
    const left: string[] = [];
    try {
      const files = (await Promise.all(chosen.map((file) => this.opened(file, left)))).flat();
      const images: { file: File; image: MaterialImage }[] = [];
      this.reading.set({ done: 0, of: files.length });
      // While one is sent, the next ones are decoded.
      const turn = pLimit(READ_AT_ONCE);
      const taken = files.map((file) =>
        turn(async () => {
          if (this.stopped) return undefined;
          const image = await this.shelf.take(file).catch(wordsOf);
          this.reading.update((reading) => reading && { ...reading, done: reading.done + 1 });
          return image;
        }),
      );
      for (const [index, image] of (await Promise.all(taken)).entries()) {
        const file = files[index];
        if (this.stopped || !image || !file) return;
        if (typeof image === 'string') left.push(image);
        else images.push({ file, image });
      }
      this.propose(images, left);
    } catch (error) {
      this.editor.refuse(wordsOf(error));
    } finally {
      this.reading.set(undefined);
    }
  }

  stop(): void {
    this.stopped = true;
    for (const job of this.shelf.jobs()) job.cancel();
  }

  dismiss(): void {
    this.proposal.set(undefined);
  }

  change(change: Partial<Pick<MapProposal, 'surface' | 'height'>>): void {
    this.proposal.update((proposal) => proposal && { ...proposal, ...change });
  }

  /** Says what an image is; nothing leaves it out. */
  setPacking(index: number, packing: PackingId | undefined): void {
    this.proposal.update(
      (proposal) =>
        proposal && {
          ...proposal,
          rows: proposal.rows.map((row, at) => (at === index ? { ...row, packing, because: 'as you say' } : row)),
        },
    );
  }

  /** Lays the set on the surface. */
  accept(): void {
    const proposal = this.proposal();
    if (!proposal) return;
    const material = this.editor.material();
    if (material.code) {
      this.editor.refuse(
        'This material is code. Declare a sampler2D parameter for each map; they get their images in the parameters panel.',
      );
      return;
    }
    const images: Edit[] = [];
    const maps = proposal.rows.flatMap(({ image, packing }): WiredMap[] => {
      if (!packing) return [];
      const { role } = packingOf(packing);
      const known = Object.entries(material.images).find(([, each]) => each.asset === image.asset && each.role === role)?.[0];
      const id = known ?? newId();
      if (!known) images.push({ label: '', changes: [putImage(id, { ...image, role })] });
      return [{ image: id, packing }];
    });
    const label = `Lay ${maps.length} maps on`;
    const wiring = wireMapSet(material, { label, surface: proposal.surface, height: proposal.height, maps }, newId);
    this.editor.leave(0);
    this.editor.change(joinEdits(label, ...images, wiring));
    this.proposal.set(undefined);
    this.wired.next();
  }

  private async opened(file: File, left: string[]): Promise<readonly File[]> {
    if (!isZip(file)) return isImage(file) ? [file] : (left.push(`${file.name} is no image.`), []);
    const unpacked = await this.shelf.unpack(file);
    left.push(...unpacked.left.map((name) => `${name} is no image that is taken.`));
    return unpacked.files;
  }

  private propose(images: readonly { file: File; image: MaterialImage }[], left: readonly string[]): void {
    if (images.length === 0) {
      this.editor.refuse(left[0] ?? 'No images were found. PNG, JPEG and WebP are taken.');
      return;
    }
    const facts = this.shelf.facts();
    const { name, surface, maps } = proposeMapSet(
      images.map(({ file, image: { width, height, asset } }) => ({ name: file.name, width, height, facts: facts.get(asset) })),
    );
    const wraps = wrapsOf(...images.map(({ image: { asset } }) => facts.get(asset)?.seams));
    const rows = maps.flatMap((map, index): MapRow[] => {
      const image = images[index]?.image;
      return image ? [{ ...map, image: { ...image, ...wraps } }] : [];
    });
    const hasNormals = rows.some(({ packing }) => packing === 'normal' || packing === 'normalDown');
    this.proposal.set({ name, surface, height: hasNormals ? 'displacement' : 'normals', rows, left });
  }
}

const isZip = ({ name, type }: File): boolean => /\.zip$/i.test(name) || type === 'application/zip';
const isImage = ({ name, type }: File): boolean => /^image\/(png|jpeg|webp)$/.test(type) || /\.(png|jpe?g|webp)$/i.test(name);

function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
