import { basename, relative } from 'node:path';
import { watch as watchFiles } from 'chokidar';
import { CODE_FILE, readCodeFile } from '../code-file';
import type { ExitCode, Output } from '../output';
import { BadFile } from '../read-file';
import { ServerTrouble, WorkspaceServer } from '../workspace-server';
import { problemsOf, tell } from './check';

const LINK = /@(material|function)\s+([A-Za-z0-9_-]{1,64})/;

/** Milliseconds for which a file must stay as it is before it is read. */
const SETTLED_MS = 80;

/**
 * Checks each file of shading code in a folder when it is saved. One that says `// @material ID` or `// @function ID` also
 * updates that document on the running server, so that any editor can be used beside the Stage.
 *
 * @param stop ends the watching
 */
export async function watch(folder: string, { server }: { server: string }, output: Output, stop: AbortSignal): Promise<ExitCode> {
  const workspace = new WorkspaceServer(server);
  const watcher = watchFiles(folder, { ignoreInitial: false, awaitWriteFinish: { stabilityThreshold: SETTLED_MS, pollInterval: 20 } });
  const saved = (file: string): void => {
    if (CODE_FILE.test(file)) void follow(file, folder, workspace, output);
  };
  watcher.on('add', saved).on('change', saved);
  await new Promise<void>((resolve, reject) => {
    watcher.once('ready', () => output.out(`watching ${folder}`));
    watcher.once('error', reject);
    stop.addEventListener('abort', () => resolve());
  });
  await watcher.close();
  return 0;
}

async function follow(file: string, folder: string, workspace: WorkspaceServer, output: Output): Promise<void> {
  tell({ file: relative(folder, file) || basename(file), problems: await problemsOf(file) }, output);
  try {
    const read = await readCodeFile(file);
    const text = read.kind === 'material' ? `${read.code.text}\n${read.code.vertices ?? ''}` : read.text;
    const [, what, id] = LINK.exec(text) ?? [];
    if (id === undefined) return;
    const name =
      what === 'material' && read.kind === 'material'
        ? await workspace.writeMaterial(id, read.code)
        : what === 'function' && read.kind !== 'material'
          ? await workspace.writeFunction(id, read.text)
          : undefined;
    if (name !== undefined) output.out(`  → “${name}”`);
  } catch (error) {
    if (!(error instanceof ServerTrouble) && !(error instanceof BadFile)) throw error;
    output.err(`  ${error.message}`);
  }
}
