import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal, ViewEncapsulation } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { DocumentSummary } from '@brelvin/contract';
import { applyChanges, newRig, newSet, renameFunction } from '@brelvin/core';
import { debounceTime, fromEvent, of, Subject, switchMap, take } from 'rxjs';
import { DocumentApi, type ListOptions } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { FileDrops } from '../shared/files/file-drops';
import { FileTaker } from '../shared/files/file-taker';
import { sortedFiles } from '../shared/files/sorted-files';
import { FunctionShelf } from '../shared/functions/function-shelf';
import { Icon } from '../shared/icons/icon';
import { ImageShelf } from '../shared/images/image-shelf';
import { LiveChannel } from '../shared/documents/live-channel';
import { NoticeList } from '../shared/notices/notice-list';
import { ThemeSwitch } from '../shared/themes/theme-switch';
import { BeginningsList } from './beginnings-list';
import { EntryCard } from './entry-card';
import { LibraryList } from './library-list';
import { FieldOpener } from './field-opener';
import { FunctionOpener } from './function-opener';
import { LeftEdits } from './left-edits';
import { BEGINNINGS, NewMaterials, type Beginning } from './new-materials';
import { Recents } from './recents';
import { Shelves, type Shelf, type ShelfEntry } from './shelves';
import { ThumbnailMaker } from './thumbnail-maker';
import { WindowedGrid } from './windowed-grid';

const SHELVES: readonly { readonly shelf: Shelf; readonly label: string; readonly one: string }[] = [
  { shelf: 'material', label: 'Materials', one: 'material' },
  { shelf: 'set', label: 'Sets', one: 'set' },
  { shelf: 'rig', label: 'Light rigs', one: 'light rig' },
  { shelf: 'field', label: 'Fields', one: 'field' },
  { shelf: 'function', label: 'Functions', one: 'function' },
  { shelf: 'image', label: 'Images', one: 'image' },
];
const SORTS: readonly (readonly [NonNullable<ListOptions['sort']>, string])[] = [
  ['changed', 'last changed'],
  ['name', 'name'],
  ['made', 'newest'],
];

/** What is dropped in the Library, and stands on a Stage. */
const ON_THE_BENCH = 'Meshes and environments stand on a Stage: open a material, and drop the file on its picture.';

const TALL: Readonly<Record<Shelf, number>> = { material: 272, image: 272, set: 272, rig: 272, field: 272, function: 144 };

/** Everything that was made: materials, sets, light rigs, fields, images, with pictures of what they really look like. */
@Component({
  selector: 'brelvin-library-page',
  imports: [BeginningsList, CdkMenu, CdkMenuItem, CdkMenuTrigger, EntryCard, Icon, NoticeList, RouterLink, ThemeSwitch, WindowedGrid],
  providers: [LibraryList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './library-page.css',
  host: { class: 'library' },
  templateUrl: './library-page.html',
})
export class LibraryPage {
  private readonly api = inject(DocumentApi);
  private readonly router = inject(Router);
  private readonly thumbnails = inject(ThumbnailMaker);
  private readonly shelfWork = inject(Shelves);
  private readonly recents = inject(Recents);
  private readonly taker = inject(FileTaker);
  private readonly drops = inject(FileDrops);
  private readonly images = inject(ImageShelf);
  private readonly functions = inject(FunctionShelf);
  private readonly opener = inject(FunctionOpener);
  private readonly fields = inject(FieldOpener);
  private readonly newMaterials = inject(NewMaterials);
  protected readonly list = inject(LibraryList);

  protected readonly all = BEGINNINGS;
  protected readonly shelves = SHELVES;
  protected readonly sorts = SORTS;
  protected readonly shelf = signal<Shelf>('material');
  protected readonly search = signal('');
  protected readonly recent = signal<readonly DocumentSummary[]>([]);
  /** Nothing was opened yet in this browser, as far as is known. */
  protected readonly firstVisit = signal(false);
  /** Something is searched for, or left out. */
  protected readonly asked = computed(() => Boolean(this.search() || this.list.query().tag || this.list.query().deleted));
  protected readonly message = signal<string | undefined>(undefined);
  protected readonly busy = signal(false);
  protected readonly deleted = signal<ShelfEntry | undefined>(undefined);
  /** Height of an entry, CSS pixels. */
  protected readonly tall = computed(() => TALL[this.shelf()]);
  private readonly typed = new Subject<string>();

  constructor() {
    this.typed.pipe(debounceTime(200), takeUntilDestroyed()).subscribe((search) => this.list.ask({ search }));
    this.list.failures.pipe(takeUntilDestroyed()).subscribe((words) => this.message.set(words));
    inject(DestroyRef).onDestroy(() => this.thumbnails.rest());
    this.taker.taken.pipe(takeUntilDestroyed()).subscribe(() => this.list.refresh());
    inject(DestroyRef).onDestroy(this.drops.takeWith((files) => this.takeDropped(files)));
    this.list.ask({});
    void this.loadRecent();
    void inject(LeftEdits).offer();
    inject(LiveChannel)
      .shelves.pipe(
        // A page that nobody sees waits with it.
        switchMap(() => (document.hidden ? fromEvent(document, 'visibilitychange').pipe(take(1)) : of(undefined))),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.list.compare());
  }

  protected word(): string {
    return SHELVES.find((each) => each.shelf === this.shelf())?.one ?? '';
  }

  protected go(shelf: Shelf): void {
    this.shelf.set(shelf);
    this.list.ask({ kind: shelf, tag: undefined, deleted: false });
  }

  protected searched(text: string): void {
    this.search.set(text);
    this.typed.next(text);
  }

  /** @param from what a material begins with */
  protected async create(from?: Beginning): Promise<void> {
    await this.work(async () => {
      const shelf = this.shelf();
      if (shelf === 'function') {
        await this.functions.ready();
        const name = this.functions.freeName('myFunction');
        await this.functions.create(name);
        await this.goToFunction(name);
        return;
      }
      const name = await this.freeName(`New ${this.word()}`);
      if (shelf === 'field') {
        await this.beginField(name, 'graph');
        return;
      }
      if (shelf === 'set') await this.api.create(newId(), newSet(name));
      else if (shelf === 'rig') await this.api.create(newId(), newRig(name));
      else {
        const id = await this.newMaterials.make(name, from);
        await this.router.navigate(['/bench', id], from?.shows ? { queryParams: { show: from.shows } } : {});
        return;
      }
      this.list.refresh();
    });
  }

  /** A field that is written as code. */
  protected async createCoded(): Promise<void> {
    await this.work(async () => this.beginField(await this.freeName('New field'), 'code'));
  }

  private async beginField(name: string, as: 'graph' | 'code'): Promise<void> {
    await this.goToField(await this.fields.make(name, as), name);
  }

  /** A function or a field is written beside a material on which it is seen. */
  protected async openText({ kind, id, name }: ShelfEntry): Promise<void> {
    await this.work(() => (kind === 'field' ? this.goToField(id, name) : this.goToFunction(name)));
  }

  private async goToField(id: string, name: string): Promise<void> {
    const material = await this.fields.materialFor(id, name);
    await this.router.navigate(['/bench', material], { queryParams: { field: id } });
  }

  private async goToFunction(name: string): Promise<void> {
    const material = await this.opener.materialFor(name);
    await this.router.navigate(['/bench', material], { queryParams: { function: name } });
  }

  protected async duplicate(entry: ShelfEntry): Promise<void> {
    await this.changing(async () => {
      const { document } = await this.api.read(entry.id);
      if (document.format === 'brelvin-function') {
        await this.functions.refresh();
        const { changes } = renameFunction(document, this.functions.freeName(document.name));
        await this.api.create(newId(), { ...applyChanges(document, changes), formerNames: [] });
        return;
      }
      await this.api.create(newId(), { ...document, name: `${document.name} copy`.slice(0, 120) });
    });
  }

  protected async rename(entry: ShelfEntry, name: string): Promise<void> {
    await this.amending(entry, { name }, () => this.shelfWork.rename(entry, name));
  }

  protected async retag(entry: ShelfEntry, tags: readonly string[]): Promise<void> {
    await this.amending(entry, { tags }, () => this.shelfWork.retag(entry, tags));
  }

  protected async remove(entry: ShelfEntry): Promise<void> {
    await this.changing(() => this.shelfWork.setDeleted(entry, true).then(() => this.deleted.set(entry)));
  }

  protected async restore(entry: ShelfEntry): Promise<void> {
    await this.changing(() => this.shelfWork.setDeleted(entry, false).then(() => this.deleted.set(undefined)));
  }

  /** Takes Brelvin files in; what came of them is told wherever one is by then. */
  protected takeIn(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    for (const file of files) void this.taker.take(file);
  }

  /** Brelvin files, and images for their shelf; what needs the Bench is refused in words. */
  private takeDropped(files: readonly File[]): void {
    const { documents, images, meshes, environments, others } = sortedFiles(files);
    for (const file of documents) void this.taker.take(file);
    if (images.length > 0) void this.keepImages(images);
    if (meshes.length + environments.length > 0) this.message.set(ON_THE_BENCH);
    if (others.length > 0 && meshes.length === 0) this.drops.refuse(others);
  }

  /** One that is refused does not keep the others out. */
  private async keepImages(files: readonly File[]): Promise<void> {
    const said: string[] = [];
    let kept = 0;
    for (const file of files) {
      try {
        if (/\.zip$/i.test(file.name)) said.push(`“${file.name}” holds maps for a material: drop it on a graph.`);
        else if (await this.images.take(file)) kept++;
      } catch (error) {
        said.push(error instanceof Error ? error.message : String(error));
      }
    }
    if (kept > 0) said.unshift(`${kept} ${kept === 1 ? 'image is' : 'images are'} on the shelf.`);
    this.message.set(said.join(' '));
    if (kept > 0) this.go('image');
  }

  /** Work after which the shelf is read anew. */
  private changing(job: () => Promise<void>): Promise<void> {
    return this.work(async () => {
      await job();
      this.list.refresh();
    });
  }

  /** Work on an entry that stays where it is: shown at once, and taken back where it fails. */
  private amending(entry: ShelfEntry, change: Partial<Pick<ShelfEntry, 'name' | 'tags'>>, job: () => Promise<void>): Promise<void> {
    return this.work(async () => {
      this.list.amend(entry.id, change);
      try {
        await job();
      } catch (error) {
        this.list.amend(entry.id, { name: entry.name, tags: entry.tags });
        throw error;
      }
      await this.list.freshen(entry.id);
    });
  }

  private async freeName(wanted: string): Promise<string> {
    const { entries } = await this.shelfWork.list(this.shelf(), { search: wanted, limit: 200 });
    const taken = new Set(entries.map((entry) => entry.name));
    let name = wanted;
    for (let count = 2; taken.has(name); count++) name = `${wanted} ${count}`;
    return name;
  }

  private async loadRecent(): Promise<void> {
    this.recent.set(await this.recents.summaries());
    this.firstVisit.set(this.recent().length === 0);
  }

  private async work(job: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.message.set(undefined);
    try {
      await job();
    } catch (error) {
      this.message.set(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy.set(false);
    }
  }
}
