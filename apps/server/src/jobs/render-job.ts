import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RenderWish } from '@brelvin/contract';
import { writeBrelvinFile } from '@brelvin/core';
import { COMMAND_LINE } from '../folders';
import { documentFile, type Stores } from '../store/document-file';
import { runLimited, type ChildLimits } from './limited-child';

/** A picture, PNG, and what it was made without; or why there is none. */
export type Rendered =
  | { readonly png: Buffer; readonly lacks?: string }
  /** @param again whether another worker may have better luck */
  | { readonly fault: string; readonly again: boolean };

/** Draws what a job wishes for, by the command line, in a process of its own. */
export async function renderJob(
  stores: Stores,
  wish: RenderWish,
  limits: ChildLimits,
  watch: { readonly onProgress: (share: number) => void; readonly stop: AbortSignal },
): Promise<Rendered> {
  const folder = await mkdtemp(join(tmpdir(), 'brelvin-job-'));
  try {
    const put = async (name: string, id: string): Promise<string> => {
      const path = join(folder, `${name}.brelvin`);
      await writeFile(path, writeBrelvinFile(await documentFile(stores, id, { images: true, stage: true })));
      return path;
    };
    const out = join(folder, 'picture.png');
    const { document, set, rig, view, camera, width, height, seconds } = wish;
    const args = [COMMAND_LINE, 'render', await put('document', document), '--out', out, '--size', `${width}x${height}`, '--progress'];
    if (set !== undefined) args.push('--set', await put('set', set));
    if (rig !== undefined) args.push('--rig', await put('rig', rig));
    if (view !== undefined) args.push('--view', view);
    if (camera) args.push('--camera', JSON.stringify(camera));
    if (seconds !== undefined) args.push('--time', String(seconds));
    const onLine = (line: string): void => {
      const share = /^progress (\d(?:\.\d+)?)$/.exec(line)?.[1];
      if (share !== undefined) watch.onProgress(Number(share));
    };
    const { code, errors, fault } = await runLimited(args, limits, { onLine, stop: watch.stop });
    if (fault !== undefined) return { fault, again: true };
    const said = errors.replaceAll(`${folder}/`, '');
    const png = await readFile(out).catch(() => undefined);
    if (!png) return { fault: said || `The command line ended with ${code}, and said nothing.`, again: false };
    return { png, ...(said ? { lacks: said } : {}) };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
