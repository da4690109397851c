import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { LONGEST_NAME, type BrelvinDocument } from '@brelvin/contract';
import { assetsOf, LARGEST_BRELVIN_FILE, readBrelvinFile, withOtherIds, type BrelvinFile } from '@brelvin/core';
import { Subject } from 'rxjs';
import { AssetApi } from '../api/asset-api';
import { DocumentApi } from '../api/document-api';
import { newId } from '../documents/new-id';
import { FunctionShelf } from '../functions/function-shelf';
import { Notices, type NoticeAction, type ToldWork } from '../notices/notices';

/** What came of a Brelvin file. */
export interface TakenFile {
  readonly id: string;
  readonly document: BrelvinDocument;
}

const KIND_WORDS: Readonly<Record<BrelvinDocument['format'], readonly [one: string, many: string]>> = {
  'brelvin-material': ['material', 'materials'],
  'brelvin-set': ['set', 'sets'],
  'brelvin-light-rig': ['light rig', 'light rigs'],
  'brelvin-function': ['function', 'functions'],
  'brelvin-field': ['field', 'fields'],
};

/**
 * Takes Brelvin files in: what documents show first, the documents after it, so that none ever stands there without. It
 * goes on while one goes from page to page, tells how far it is, and what came where.
 */
@Injectable({ providedIn: 'root' })
export class FileTaker {
  private readonly api = inject(DocumentApi);
  private readonly assets = inject(AssetApi);
  private readonly functions = inject(FunctionShelf);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly came = new Subject<TakenFile>();

  /** Each document that a file was for. */
  readonly taken = this.came.asObservable();

  /** Never throws: what is wrong with a file is said, and then none of its documents was taken. */
  async take(file: File): Promise<TakenFile | undefined> {
    const work = this.notices.work(`“${file.name}” is being imported …`);
    try {
      const taken = await this.bring(file, work);
      this.came.next(taken);
      return taken;
    } catch (error) {
      if (work.signal.aborted) work.end(`“${file.name}” was not imported: it was cancelled.`);
      else work.end(`“${file.name}” was not imported. ${error instanceof Error ? error.message : String(error)}`);
      return undefined;
    }
  }

  private async bring(file: File, work: ToldWork): Promise<TakenFile> {
    if (file.size > LARGEST_BRELVIN_FILE)
      throw new Error(`It has ${mebibytes(file.size)} MiB; a Brelvin file has at most ${mebibytes(LARGEST_BRELVIN_FILE)}.`);
    const content = readBrelvinFile(new Uint8Array(await file.arrayBuffer()));
    await this.sendAssets(content, work);
    const kept = await this.keepFunctions(content.functions);
    work.signal.throwIfAborted();
    const ids = new Map([...content.beside.keys()].map((id) => [id, newId()]));
    for (const [id, document] of content.beside) await this.api.create(ids.get(id) ?? newId(), withOtherIds(document, ids));
    const id = newId();
    await this.api.create(id, withOtherIds(content.document, ids));
    work.end([summary(content), ...kept].join(' '), this.opening(id, content.document));
    return { id, document: content.document };
  }

  private async sendAssets({ document, beside, assets }: BrelvinFile, work: ToldWork): Promise<void> {
    const names = new Map([document, ...beside.values()].flatMap(assetsOf).map(({ sha256, name }) => [sha256, name]));
    const total = [...assets.values()].reduce((sum, { bytes }) => sum + bytes.length, 0);
    let done = 0;
    for (const [sha256, { bytes, type }] of assets) {
      const name = (names.get(sha256) ?? sha256.slice(0, 12)).slice(0, LONGEST_NAME);
      const share = (part: number): void => work.progress((done + part * bytes.length) / Math.max(total, 1));
      // The server checks that it is what its name says.
      await this.assets.send(new Blob([bytes], { type }), { name, type, sha256 }, { progress: share, signal: work.signal });
      done += bytes.length;
    }
  }

  /** A function that the Library has by name stays as it is. @returns what is to be said of that */
  private async keepFunctions(functions: BrelvinFile['functions']): Promise<string[]> {
    if (functions.size === 0) return [];
    await this.functions.refresh();
    const other: string[] = [];
    for (const [name, text] of functions) {
      if (this.functions.idOf(name) === undefined) await this.functions.create(name, text);
      else if (this.functions.texts().get(name)?.text !== text) other.push(`“${name}”`);
    }
    if (other.length === 0) return [];
    return [`The Library has ${other.join(', ')} already, written otherwise; it stays as it is, so the picture may differ.`];
  }

  private opening(id: string, { format, seenIn }: BrelvinDocument & { readonly seenIn?: object }): NoticeAction[] {
    if (format !== 'brelvin-material' || !seenIn) return [];
    return [{ words: 'Open', run: () => void this.router.navigate(['/bench', id]) }];
  }
}

/** What came, and where it is now. */
function summary({ document, beside, assets, functions }: BrelvinFile): string {
  const [one] = KIND_WORDS[document.format];
  const where = SHELVES[document.format];
  const counted = Object.entries(KIND_WORDS).flatMap(([format, [single, many]]) => {
    const count = [...beside.values()].filter((each) => each.format === format).length;
    return count === 0 ? [] : [`${count} ${count === 1 ? single : many}`];
  });
  if (assets.size > 0) counted.push(`${assets.size} ${assets.size === 1 ? 'file' : 'files'}`);
  if (functions.size > 0) counted.push(`${functions.size} ${functions.size === 1 ? 'function' : 'functions'}`);
  const more = counted.length > 0 ? `, with ${counted.join(', ')}` : '';
  return `The ${one} “${document.name}” is in the Library, under ${where}${more}.`;
}

const SHELVES: Readonly<Record<BrelvinDocument['format'], string>> = {
  'brelvin-material': 'Materials',
  'brelvin-set': 'Sets',
  'brelvin-light-rig': 'Light rigs',
  'brelvin-function': 'Functions',
  'brelvin-field': 'Fields',
};

const mebibytes = (bytes: number): number => Math.round(bytes / 1024 / 1024);
