import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';
import {
  type BrelvinDocument,
  type Change,
  type DOCUMENT_QUERY,
  type DocumentKind,
  type DocumentNews,
  type DocumentSummary,
  type FunctionUser,
  type HistoryPart,
  LARGEST_STEP,
  type NamedVersion,
  type NewVersion,
  type ReceivedOf,
  type StoredDocument,
  type StoredFunction,
  type StoredStep,
  type TagCount,
  type Transaction,
} from '@brelvin/contract';
import { applyChanges, functionsUsedBy, InvalidDocument, kindOf, LruCache, readDocument, seenWith, UnfitChange } from '@brelvin/core';
import { and, arrayContains, asc, count, desc, eq, gt, inArray, isNull, lte, ne, or, sql, type SQL } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import type { Database } from './database';
import { DocumentGone, DocumentMissing, FunctionNameTaken, IdTaken, StaleSave, StepMissing, UnfitStep, VersionNameTaken } from './failures';
import { NEWS_CHANNEL, tell } from './news';
import { documents, snapshots, steps, thumbnails, versions } from './schema';
import { onShelf, shelfOrder, tagsInUse } from './shelf';

const pack = promisify(deflate);
const unpack = promisify(inflate);

/** Materials that are looked through at once for one to be drawn. */
const MOST_WITHOUT_PICTURE = 100;
const SNAPSHOT_EVERY = 200;
const MOST_CACHED = 1000;
const DIALECT = new PgDialect();

type Transactional = Parameters<Parameters<Database['transaction']>[0]>[0];
/** The database, or a transaction of it. */
type Reader = Pick<Database, 'select' | 'execute'>;
type DocumentRow = Pick<typeof documents.$inferSelect, keyof typeof LISTED>;

/** What is read of a document before its content. */
const LISTED = { id: documents.id, name: documents.name, step: documents.step, deletedAt: documents.deletedAt };

/** Documents as snapshots and the steps after them. Any number of servers may share one database. */
export class DocumentRepository {
  /** Recently read contents; used only while their step is still the last one. */
  private readonly cache = new LruCache<StoredDocument>(MOST_CACHED);

  constructor(private readonly database: Database) {}

  async list(query: ReceivedOf<typeof DOCUMENT_QUERY>): Promise<{ documents: DocumentSummary[]; total: number }> {
    const { kind, sort = 'changed', offset, limit } = query;
    const wanted = and(eq(documents.kind, kind), ...onShelf(documents, query));
    const { id, name, tags, step, updatedAt } = documents;
    // The page first, its pictures after: not a join over everything that is skipped.
    const page = this.database
      .select({ id, kind: documents.kind, name, tags, step, updatedAt })
      .from(documents)
      .where(wanted)
      .orderBy(...shelfOrder(documents, documents.id)[sort])
      .limit(limit)
      .offset(offset);
    const all = this.database.select({ total: count() }).from(documents).where(wanted);
    const [rows, [sum]] = await Promise.all([page, all]);
    const ids = rows.map((row) => row.id);
    const pictures =
      ids.length === 0
        ? []
        : await this.database
            .select({ document: thumbnails.document, step: thumbnails.step })
            .from(thumbnails)
            .where(inArray(thumbnails.document, ids));
    const pictured = new Map(pictures.map((each) => [each.document, each.step]));
    return {
      documents: rows.map((row) => ({ ...row, updatedAt: row.updatedAt.toISOString(), pictured: pictured.get(row.id) ?? null })),
      total: sum?.total ?? 0,
    };
  }

  /** Tags in use by documents of a kind, most used first. */
  tags(kind: DocumentKind): Promise<TagCount[]> {
    return tagsInUse(this.database, documents, eq(documents.kind, kind));
  }

  async isEmpty(): Promise<boolean> {
    const rows = await this.database.select({ id: documents.id }).from(documents).limit(1);
    return rows.length === 0;
  }

  /** @throws IdTaken unless the same id was already given to the same document (a repeated request) */
  async create(id: string, document: BrelvinDocument): Promise<StoredDocument> {
    const content = await pack(JSON.stringify(document));
    await this.database.transaction(async (transaction) => {
      await this.refuseSecondFunction(transaction, id, document);
      const made = await transaction
        .insert(documents)
        .values({ id, kind: kindOf(document), name: document.name, tags: [...document.tags], uses: usesOf(document) })
        .onConflictDoNothing()
        .returning({ id: documents.id });
      if (made.length === 0) throw new IdTaken(id);
      await transaction.insert(snapshots).values({ document: id, step: 0, content });
      await tell(transaction, { id, step: 0 });
    });
    const stored = { id, step: 0, document };
    this.cache.set(stored.id, stored);
    return stored;
  }

  /** @throws DocumentMissing, DocumentGone */
  async read(id: string): Promise<StoredDocument> {
    return this.load(this.database, await this.present(this.database, id));
  }

  /** Steps after a given one, in order. */
  async stepsAfter(id: string, after: number): Promise<StoredStep[]> {
    await this.present(this.database, id);
    return this.selectSteps(this.database, id, after);
  }

  /**
   * Adds transactions behind step `after`. Saving the same ones again changes nothing and succeeds.
   *
   * @returns the number of the last step
   * @throws StaleSave with the steps the client does not know; UnfitStep; DocumentMissing; DocumentGone
   */
  async append(id: string, after: number, transactions: readonly Transaction[]): Promise<number> {
    if (new Set(transactions.map((each) => each.id)).size < transactions.length)
      throw new UnfitStep('Two of the steps have the same id; each has one of its own.');
    try {
      return (await this.appendAtOnce(id, after, transactions)) ?? (await this.appendTo(id, after, transactions, false));
    } catch (error) {
      // One of them is stored already, before the last step that the sender knows.
      if (isRepeated(error)) return this.appendTo(id, after, transactions, true);
      throw error;
    }
  }

  /** By one statement, where the content is at hand; nothing where it is not, or where somebody was faster. */
  private async appendAtOnce(id: string, after: number, transactions: readonly Transaction[]): Promise<number | undefined> {
    const cached = this.cache.get(id);
    const step = after + transactions.length;
    if (cached?.step !== after || isSnapshotDue(after, step)) return undefined;
    let document: BrelvinDocument;
    try {
      document = applyAll(cached.document, transactions);
    } catch (error) {
      // What is at hand may be of yesterday: whoever reads anew decides.
      if (error instanceof UnfitStep) return undefined;
      throw error;
    }
    const isRenamed = document.format === 'brelvin-function' && document.name !== cached.document.name;
    if (isRenamed) return undefined;
    // It is planned once for each connection: planning takes as long as running it.
    const { sql: text, params } = DIALECT.sqlToQuery(storing(id, after, transactions, document));
    const { rowCount } = await this.database.$client.query({ name: 'store steps', text, values: params });
    if (rowCount === 0) return undefined;
    this.cache.set(id, { id, step, document });
    return step;
  }

  /** With a lock on the document, from what it is now. */
  private async appendTo(id: string, after: number, transactions: readonly Transaction[], mayRepeat: boolean): Promise<number> {
    const stored = await this.database.transaction(async (transaction) => {
      const current = await this.load(transaction, await this.present(transaction, id, 'and lock it'));
      // Who knows the last step knows which of its own are stored, as a rule.
      const isNew = after === current.step && !mayRepeat;
      const known = isNew ? new Set<string>() : await this.knownTransactions(transaction, id, transactions);
      const fresh = transactions.filter((each) => !known.has(each.id));
      if (fresh.length === 0) return current;
      if (after + known.size !== current.step) throw new StaleSave(current.step, await this.selectSteps(transaction, id, after));
      const document = applyAll(current.document, fresh);
      if (document.name !== current.document.name) await this.refuseSecondFunction(transaction, id, document);
      const step = current.step + fresh.length;
      await transaction.execute(storing(id, current.step, fresh, document));
      if (isSnapshotDue(current.step, step))
        await transaction.insert(snapshots).values({ document: id, step, content: await pack(JSON.stringify(document)) });
      return { id, step, document };
    });
    // Only what is committed may be remembered.
    this.cache.set(stored.id, stored);
    return stored.step;
  }

  /**
   * The last steps up to `before`, oldest first, with the state they start from.
   *
   * @throws DocumentMissing, DocumentGone
   */
  async history(id: string, limit: number, before?: number): Promise<HistoryPart> {
    const { step: last } = await this.present(this.database, id);
    const end = Math.min(before ?? last, last);
    const start = Math.max(0, end - limit);
    return { base: await this.at(id, start), baseStep: start, steps: await this.selectSteps(this.database, id, start, end) };
  }

  /**
   * A document as it was after a step.
   *
   * @throws DocumentMissing, DocumentGone
   */
  async at(id: string, step: number): Promise<BrelvinDocument> {
    await this.present(this.database, id);
    const [snapshot] = await this.database
      .select()
      .from(snapshots)
      .where(and(eq(snapshots.document, id), lte(snapshots.step, step)))
      .orderBy(desc(snapshots.step))
      .limit(1);
    if (!snapshot) throw new DocumentMissing(id);
    const later = await this.selectSteps(this.database, id, snapshot.step, step);
    return built(snapshot.content, later);
  }

  async versions(id: string): Promise<NamedVersion[]> {
    const rows = await this.database.select().from(versions).where(eq(versions.document, id)).orderBy(desc(versions.step));
    return rows.map(({ name, step, at, beside }) => ({ name, step, at: at.toISOString(), ...(beside ? { beside } : {}) }));
  }

  /** All functions of the Library, by name. */
  async functions(): Promise<StoredFunction[]> {
    const rows = await this.database
      .select(LISTED)
      .from(documents)
      .where(and(eq(documents.kind, 'function'), isNull(documents.deletedAt)))
      .orderBy(asc(documents.name));
    const read = await this.loadAll(this.database, rows);
    return read.flatMap(({ id, step, document }) =>
      document.format === 'brelvin-function'
        ? [{ id, step, name: document.name, text: document.text, formerNames: document.formerNames }]
        : [],
    );
  }

  /** What asks for a function by one of these names, or is seen with a document of this id. */
  async usersOf(names: readonly string[]): Promise<FunctionUser[]> {
    const asks = names.map((name) => arrayContains(documents.uses, [name]));
    return this.database
      .select({ id: documents.id, kind: documents.kind, name: documents.name })
      .from(documents)
      .where(and(or(...asks), isNull(documents.deletedAt)))
      .orderBy(asc(documents.name));
  }

  /** Functions are imported by name, so no two may share one. */
  private async refuseSecondFunction(transaction: Transactional, id: string, document: BrelvinDocument): Promise<void> {
    if (document.format !== 'brelvin-function') return;
    // Two that come at once must see each other.
    await transaction.execute(sql`select pg_advisory_xact_lock(hashtext(${`function ${document.name}`}))`);
    const [other] = await transaction
      .select({ id: documents.id })
      .from(documents)
      .where(and(eq(documents.kind, 'function'), eq(documents.name, document.name), ne(documents.id, id), isNull(documents.deletedAt)))
      .limit(1);
    if (other) throw new FunctionNameTaken(document.name);
  }

  /** Gives a step a name, and keeps which steps others had then. @throws VersionNameTaken, DocumentMissing, DocumentGone */
  async nameVersion(id: string, { name, step, beside }: NewVersion): Promise<void> {
    const { step: last } = await this.present(this.database, id);
    const made = await this.database
      .insert(versions)
      .values({ document: id, name, step: Math.min(step, last), beside })
      .onConflictDoNothing()
      .returning({ name: versions.name });
    if (made.length === 0) throw new VersionNameTaken(name);
    await tell(this.database, { id, named: name });
  }

  /** @throws DocumentMissing; FunctionNameTaken when another function got the name meanwhile */
  async setDeleted(id: string, deleted: boolean): Promise<void> {
    await this.database.transaction(async (transaction) => {
      const [changed] = await transaction
        .update(documents)
        .set({ deletedAt: deleted ? sql`now()` : null })
        .where(eq(documents.id, id))
        .returning({ name: documents.name });
      if (!changed) throw new DocumentMissing(id);
      if (!deleted)
        await this.refuseSecondFunction(transaction, id, (await this.load(transaction, await this.present(transaction, id))).document);
      await tell(transaction, { id, ...(deleted ? { deleted } : { restored: true }) });
    });
  }

  /** Keeps the newest picture: one of an earlier step never takes its place. @throws StepMissing for one that is still to come */
  async saveThumbnail(id: string, step: number, png: Buffer): Promise<void> {
    const { step: last } = await this.present(this.database, id);
    if (step > last) throw new StepMissing(step, last);
    await this.database
      .insert(thumbnails)
      .values({ document: id, step, png })
      .onConflictDoUpdate({ target: thumbnails.document, set: { step, png }, setWhere: sql`${thumbnails.step} <= ${step}` });
  }

  async readThumbnail(id: string): Promise<{ step: number; png: Buffer } | undefined> {
    const [row] = await this.database.select().from(thumbnails).where(eq(thumbnails.document, id));
    return row;
  }

  /** Materials whose picture is of an earlier step, or that have none, for some seconds at least; the newest first. */
  withoutPicture(seconds: number): Promise<{ readonly id: string; readonly step: number }[]> {
    return this.database
      .select({ id: documents.id, step: documents.step })
      .from(documents)
      .leftJoin(thumbnails, eq(thumbnails.document, documents.id))
      .where(
        and(
          eq(documents.kind, 'material'),
          isNull(documents.deletedAt),
          or(isNull(thumbnails.step), gt(documents.step, thumbnails.step)),
          sql`${documents.updatedAt} <= now() - make_interval(secs => ${seconds})`,
        ),
      )
      .orderBy(desc(documents.updatedAt), documents.id)
      .limit(MOST_WITHOUT_PICTURE);
  }

  /** What lists know of a document. @throws DocumentMissing, DocumentGone */
  private async present(from: Reader, id: string, lock?: 'and lock it'): Promise<DocumentRow> {
    const query = from.select(LISTED).from(documents).where(eq(documents.id, id));
    const [row] = await (lock ? query.for('update') : query);
    if (!row) throw new DocumentMissing(id);
    if (row.deletedAt) throw new DocumentGone(id, row.name);
    return row;
  }

  private async load(from: Reader, row: DocumentRow): Promise<StoredDocument> {
    const [stored] = await this.loadAll(from, [row]);
    if (!stored) throw new DocumentMissing(row.id);
    return stored;
  }

  /** Contents of documents: from memory where that is still the last step, all others by one query, which sees one moment. */
  private async loadAll(from: Reader, rows: readonly DocumentRow[]): Promise<StoredDocument[]> {
    const known = new Map(rows.flatMap(({ id, step }) => (this.cache.get(id)?.step === step ? [[id, this.cache.get(id)]] : [])));
    const unknown = rows.filter(({ id }) => !known.has(id)).map(({ id }) => id);
    if (unknown.length > 0) {
      const { rows: found } = await from.execute<{ id: string; step: number; content: Buffer; later: Change[][] }>(sql`
        select d.id, d.step, s.content,
          (select coalesce(jsonb_agg(t.changes order by t.step), '[]') from ${steps} t where t.document = d.id and t.step > s.step) as later
        from ${documents} d
        cross join lateral (select step, content from ${snapshots} where document = d.id order by step desc limit 1) s
        where d.id in ${unknown}`);
      for (const { id, step, content, later } of found) {
        const document = await built(
          content,
          later.map((changes) => ({ changes })),
        );
        this.cache.set(id, { id, step, document });
        known.set(id, { id, step, document });
      }
    }
    return rows.flatMap(({ id }) => known.get(id) ?? []);
  }

  private async selectSteps(from: Reader, id: string, after: number, last = LARGEST_STEP): Promise<StoredStep[]> {
    const rows = await from
      .select()
      .from(steps)
      .where(and(eq(steps.document, id), gt(steps.step, after), lte(steps.step, last)))
      .orderBy(asc(steps.step));
    return rows.map((row) => ({
      step: row.step,
      id: row.transaction,
      label: row.label,
      changes: row.changes,
      gesture: row.gesture ?? undefined,
      direction: row.direction ?? undefined,
      at: row.at.toISOString(),
    }));
  }

  private async knownTransactions(transaction: Transactional, id: string, wanted: readonly Transaction[]): Promise<Set<string>> {
    const ids = wanted.map((each) => each.id);
    const rows = await transaction
      .select({ transaction: steps.transaction })
      .from(steps)
      .where(and(eq(steps.document, id), inArray(steps.transaction, ids)));
    return new Set(rows.map((row) => row.transaction));
  }
}

/** Whether a document gets another snapshot between two of its steps. */
function isSnapshotDue(from: number, to: number): boolean {
  return Math.floor(to / SNAPSHOT_EVERY) > Math.floor(from / SNAPSHOT_EVERY);
}

/** SQLSTATE 23505: there is such a one. */
function isRepeated(error: unknown): boolean {
  // Drizzle wraps what the driver throws.
  const { cause = error } = error as { cause?: unknown };
  const { code, constraint } = cause as { code?: string; constraint?: string };
  return code === '23505' && constraint === 'steps_once';
}

/**
 * Puts steps behind step `last`, with what lists know of the document by them and the news of it: one way to the database.
 * It has a row when `last` still was the last one, none when it was not.
 */
function storing(id: string, last: number, fresh: readonly Transaction[], document: BrelvinDocument): SQL {
  const rows = fresh.map((each, index) => ({ ...each, step: last + index + 1, transaction: each.id }));
  const step = last + fresh.length;
  const news: DocumentNews = { id, step };
  return sql`
    with listed as (
      update ${documents}
      set step = ${step}, name = ${document.name}, tags = ${textArray(document.tags)}, uses = ${textArray(usesOf(document))},
        updated_at = now()
      where id = ${id} and step = ${last} and deleted_at is null
      returning id
    ), added as (
      insert into ${steps} (document, step, transaction, label, gesture, direction, changes)
      select listed.id, row.step, row.transaction, row.label, row.gesture, row.direction, row.changes
      from listed, jsonb_to_recordset(${JSON.stringify(rows)}::jsonb)
        as row (step integer, transaction text, label text, gesture text, direction text, changes jsonb)
    )
    select pg_notify(${NEWS_CHANNEL}, ${JSON.stringify(news)}) from listed`;
}

function textArray(texts: readonly string[]): SQL {
  return sql`array(select jsonb_array_elements_text(${JSON.stringify(texts)}::jsonb))`;
}

/** A document from a snapshot and what was done since. */
async function built(content: Buffer, later: readonly Pick<Transaction, 'changes'>[]): Promise<BrelvinDocument> {
  const start = readDocument(JSON.parse((await unpack(content)).toString('utf8')));
  return later.reduce((document, each) => applyChanges(document, each.changes), start);
}

/** Applies and checks: nothing is stored that could not be read again. */
function applyAll(document: BrelvinDocument, transactions: readonly Transaction[]): BrelvinDocument {
  try {
    const next = transactions.reduce((each, { changes }) => applyChanges(each, changes), document);
    if (next.format !== document.format)
      throw new UnfitStep(`A ${kindOf(document)} stays a ${kindOf(document)}: no step changes the kind of a document.`);
    return readDocument(next);
  } catch (error) {
    if (error instanceof UnfitChange) throw new UnfitStep(`A change does not fit the document: ${error.message}.`);
    if (error instanceof InvalidDocument) throw new UnfitStep(`The document would be damaged by this: ${error.message}`, error.problems);
    throw error;
  }
}

/** What a document is looked up by as a user of others: functions by their names, documents by their ids. */
function usesOf(document: BrelvinDocument): string[] {
  return [...functionsUsedBy(document), ...seenWith(document)];
}
