import { computed, inject, Injectable, signal } from '@angular/core';
import { type LibraryFunction, type StoredFunction } from '@brelvin/contract';
import { library, libraryWith, newFunction, type FunctionTexts, type Library } from '@brelvin/core';
import { DocumentApi } from '../api/document-api';
import { newId } from '../documents/new-id';

/** The functions of the Library: as they are stored, and over that as they are being written on the Bench. */
@Injectable({ providedIn: 'root' })
export class FunctionShelf {
  private readonly api = inject(DocumentApi);
  private readonly stored = signal<readonly StoredFunction[]>([]);
  private readonly written = signal<ReadonlyMap<string, LibraryFunction>>(new Map());
  private loading?: Promise<void>;

  private readonly all = computed(() => {
    const written = this.written();
    const found = new Map(this.stored().map(({ id, name, text, formerNames }) => [id, { id, name, text, formerNames }] as const));
    for (const [id, { name, text, formerNames }] of written) found.set(id, { id, name, text, formerNames });
    return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
  });
  /** By the name by which they are imported. */
  readonly texts = computed((): FunctionTexts => new Map(this.all().map(({ name, text, formerNames }) => [name, { text, formerNames }])));
  /** The shader library with these functions: as kinds of nodes, and to be imported. */
  readonly library = computed((): Library => (this.texts().size > 0 ? libraryWith(this.texts(), library()) : library()));
  readonly names = computed(() => this.all().map(({ name }) => name));

  idOf(name: string): string | undefined {
    return this.all().find((each) => each.name === name || each.formerNames.includes(name))?.id;
  }

  /** Reads the shelf once; later calls wait for the same. @throws ApiFailure */
  ready(): Promise<void> {
    this.loading ??= this.refresh();
    this.loading.catch(() => (this.loading = undefined));
    return this.loading;
  }

  /** @throws ApiFailure */
  async refresh(): Promise<void> {
    const { functions } = await this.api.functions();
    this.stored.set(functions);
  }

  /** A function as it is being written; stored again when it is let go. */
  write(id: string, document: LibraryFunction | undefined): void {
    const next = new Map(this.written());
    const before = next.get(id);
    if (document) next.set(id, document);
    else next.delete(id);
    if (!document && before) {
      const { name, text, formerNames } = before;
      this.stored.update((all) => [...all.filter((each) => each.id !== id), { id, step: 0, name, text, formerNames }]);
    }
    this.written.set(next);
  }

  /** A name that no function has yet: the wanted one, or the wanted one and a number. */
  freeName(wanted: string): string {
    const taken = new Set(this.names());
    let name = wanted;
    for (let count = 2; taken.has(name); count++) name = `${wanted}${count}`;
    return name;
  }

  /** Makes a function, with a text of its own or one to begin with. @returns its id @throws ApiFailure */
  async create(name: string, text?: string): Promise<string> {
    const id = newId();
    await this.api.create(id, newFunction(name, text));
    await this.refresh();
    return id;
  }
}
