import { inject, Injectable } from '@angular/core';
import {
  CUBE_IMAGE_KIND,
  facesByName,
  fittingOutlet,
  IMAGE_KIND,
  joinEdits,
  putImage,
  setParameter,
  type InletAddress,
  type MaterialImage,
} from '@brelvin/core';
import type { AssetSummary } from '../../shared/api/asset-api';
import { newId } from '../../shared/documents/new-id';
import { BenchContext } from '../bench-context';
import type { Point } from '../graph/card-layout';
import { GraphView } from '../graph/graph-view';
import { GraphWork } from '../graph/graph-work';
import { ImageShelf } from '../../shared/images/image-shelf';

const STEP = 190;

/** What shows an image: a node, or a parameter of a code material. */
export type ImageUser = { readonly node: string } | { readonly parameter: string };

/** Puts images into the material: dropped on the graph, on an inlet, or chosen on a node. */
@Injectable()
export class ImagePlacer {
  private readonly context = inject(BenchContext);
  private readonly shelf = inject(ImageShelf);
  private readonly view = inject(GraphView);
  private readonly work = inject(GraphWork);

  /** An image node for each file, side by side, or one for the six sides of a cube; the first one runs into an inlet when it was dropped there. */
  async drop(files: readonly File[], at: Point, into?: InletAddress): Promise<void> {
    if (facesByName(files.map(({ name }) => name))) {
      const cube = await this.takeCube(files);
      if (cube) this.place(cube, at, into);
      return;
    }
    for (const [index, file] of files.entries()) {
      const image = await this.take(file);
      if (image) this.place(image, { x: at.x, y: at.y + index * STEP }, index === 0 ? into : undefined);
    }
  }

  /** Gives a node or parameter an image from a file, or a cube image from six. */
  async fill(user: ImageUser, files: readonly File[], cube = files.length > 1): Promise<void> {
    const [file] = files;
    const image = cube ? await this.takeCube(files) : file && (await this.take(file));
    if (image) this.put(user, image);
  }

  /** Gives a node or parameter an image of the workspace. */
  adopt(user: ImageUser, { sha256, name, width, height }: AssetSummary): void {
    const own = name.replace(/\.[^.]+$/, '');
    this.put(user, {
      name: own,
      asset: sha256,
      width,
      height,
      role: 'colour',
      wrapX: 'repeat',
      wrapY: 'repeat',
      filter: 'smooth',
      uvSet: 0,
    });
  }

  private async take(file: File): Promise<MaterialImage | undefined> {
    try {
      return await this.shelf.take(file);
    } catch (error) {
      this.work.refuse(error instanceof Error ? error.message : String(error));
      return undefined;
    }
  }

  private async takeCube(files: readonly File[]): Promise<MaterialImage | undefined> {
    try {
      return await this.shelf.takeCube(files);
    } catch (error) {
      this.work.refuse(error instanceof Error ? error.message : String(error));
      return undefined;
    }
  }

  private put(user: ImageUser, image: MaterialImage): void {
    const { id, changes } = this.imageOf(image);
    const chosen = 'node' in user ? this.work.typed().edits.setImage(user.node, id) : setParameter(user.parameter, 'image', id);
    this.work.do({ label: 'Choose an image', changes: [...changes, ...chosen.changes] });
  }

  private place(image: MaterialImage, at: Point, into?: InletAddress): void {
    const kind = this.context.kind(image.faces ? CUBE_IMAGE_KIND : IMAGE_KIND);
    if (!kind) return;
    const typed = this.work.typed();
    const { id, changes } = this.imageOf(image);
    const node = newId();
    const wanted = into && typed.inletType(into);
    const outlet = wanted && fittingOutlet(kind, wanted);
    const edits = [
      { label: '', changes },
      typed.edits.addNode(
        node,
        { kind: kind.id, rev: kind.rev, x: Math.round(at.x), y: Math.round(at.y), values: {}, image: id },
        kind.title,
      ),
      ...(into && outlet ? [typed.edits.connect({ node, outlet: outlet.name }, into)] : []),
    ];
    this.work.do(joinEdits(`Add image ${image.name}`, ...edits));
    this.view.select([node]);
  }

  /** The material's image of the same file, or a new one. */
  private imageOf(image: MaterialImage): { id: string; changes: ReturnType<typeof putImage>[] } {
    const known = Object.entries(this.work.material().images).find(
      ([, each]) => each.asset === image.asset && each.faces?.join() === image.faces?.join(),
    );
    if (known) return { id: known[0], changes: [] };
    const id = newId();
    return { id, changes: [putImage(id, image)] };
  }
}
