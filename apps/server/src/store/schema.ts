import type { Budget, Change, DocumentKind, JobState, RenderWish } from '@brelvin/contract';
import { sql } from 'drizzle-orm';
import { customType, index, integer, jsonb, pgTable, primaryKey, real, serial, text, timestamp, unique } from 'drizzle-orm/pg-core';

const bytes = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'bytea' });
/** Every letter and every two that stand together in name and tags: what a search for few letters looks up. */
const sought = () =>
  text('sought')
    .array()
    .generatedAlwaysAs(sql`brelvin_sought(name, tags)`);
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** Materials, sets and light rigs: what lists and searches need. The content is in snapshots and steps. */
export const documents = pgTable(
  'documents',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<DocumentKind>().notNull(),
    name: text('name').notNull(),
    tags: text('tags')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** Functions of the Library that it asks for, by name, and documents that it is seen with, by id. */
    uses: text('uses')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** Number of the last step. */
    step: integer('step').notNull().default(0),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
    deletedAt: moment('deleted_at'),
    sought: sought(),
  },
  (table) => [
    // Lists leave deleted documents out and show the newest change first.
    index('documents_listed')
      .on(table.kind, table.updatedAt.desc(), table.id)
      .where(sql`${table.deletedAt} is null`),
    // Searches look for a part of a name.
    index('documents_by_name')
      .on(table.kind, table.name, table.id)
      .where(sql`${table.deletedAt} is null`),
    index('documents_by_tag').using('gin', table.tags),
    index('documents_by_use').using('gin', table.uses),
    index('documents_sought').using('gin', table.sought),
  ],
);

/** Transactions in order; never changed, only added to. */
export const steps = pgTable(
  'steps',
  {
    document: text('document')
      .notNull()
      .references(() => documents.id),
    step: integer('step').notNull(),
    /** The client's id of the transaction: a repeated save finds it again. */
    transaction: text('transaction').notNull(),
    label: text('label').notNull(),
    gesture: text('gesture'),
    /** Whether the step takes another one back, or does it again. */
    direction: text('direction').$type<'undo' | 'redo'>(),
    changes: jsonb('changes').$type<Change[]>().notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.document, table.step] }), unique('steps_once').on(table.document, table.transaction)],
);

/** The whole document after a step, deflated JSON: where reading starts. */
export const snapshots = pgTable(
  'snapshots',
  {
    document: text('document')
      .notNull()
      .references(() => documents.id),
    step: integer('step').notNull(),
    content: bytes('content').notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.document, table.step] })],
);

/** The picture of a document in lists, PNG, as of a step. */
export const thumbnails = pgTable('thumbnails', {
  document: text('document')
    .primaryKey()
    .references(() => documents.id),
  step: integer('step').notNull(),
  png: bytes('png').notNull(),
});

/** Points in a document's history that somebody gave a name. */
export const versions = pgTable(
  'versions',
  {
    document: text('document')
      .notNull()
      .references(() => documents.id),
    name: text('name').notNull(),
    step: integer('step').notNull(),
    /** Steps of the documents that stood on the Stage with it, where the version holds them too. */
    beside: jsonb('beside').$type<readonly { readonly id: string; readonly step: number }[]>(),
    at: moment('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.document, table.name] })],
);

/** Files of the workspace by their content: images, environments, meshes. All of them are whole and were checked. */
export const assets = pgTable(
  'assets',
  {
    sha256: text('sha256').primaryKey(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    size: integer('size').notNull(),
    width: integer('width').notNull().default(0),
    height: integer('height').notNull().default(0),
    /** Where its chunks are. */
    storage: text('storage').notNull(),
    tags: text('tags')
      .array()
      .notNull()
      .default(sql`'{}'`),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
    /** Off the shelf; what shows the image goes on showing it. */
    deletedAt: moment('deleted_at'),
    sought: sought(),
  },
  (table) => [
    index('assets_listed')
      .on(table.updatedAt.desc(), table.sha256)
      .where(sql`${table.deletedAt} is null`),
    index('assets_by_tag').using('gin', table.tags),
    index('assets_sought').using('gin', table.sought),
  ],
);

/** Files on their way in: each sender's own, so that nobody's announcement stands in another's way. */
export const uploads = pgTable(
  'uploads',
  {
    /** Where its chunks are; the asset takes them over when it is finished. */
    storage: text('storage').primaryKey(),
    sender: text('sender').notNull(),
    sha256: text('sha256').notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    size: integer('size').notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (table) => [unique('uploads_once').on(table.sender, table.sha256), index('uploads_by_age').on(table.createdAt)],
);

export const assetChunks = pgTable(
  'asset_chunks',
  {
    storage: text('storage').notNull(),
    number: integer('number').notNull(),
    content: bytes('content').notNull(),
  },
  (table) => [primaryKey({ columns: [table.storage, table.number] })],
);

/** What holds for all of the workspace, by name. */
export const settings = pgTable('settings', {
  name: text('name').primaryKey(),
  value: jsonb('value').$type<Budget>().notNull(),
});

/** Processes that do jobs. One lives as long as its connection holds the lock with its number. */
export const workers = pgTable('workers', {
  id: serial('id').primaryKey(),
  /** The machine and process, for people. */
  name: text('name').notNull(),
  startedAt: moment('started_at').notNull().defaultNow(),
});

/** What workers are asked to make. Whose turn it is is in the queue's own tables. */
export const jobs = pgTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<'render'>().notNull(),
    /** Called so in lists: the document's name. */
    title: text('title').notNull(),
    wish: jsonb('wish').$type<RenderWish>().notNull(),
    state: text('state').$type<JobState>().notNull().default('waiting'),
    progress: real('progress').notNull().default(0),
    message: text('message'),
    asset: text('asset'),
    attempts: integer('attempts').notNull().default(0),
    /** Who does it. */
    worker: integer('worker'),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
  },
  (table) => [
    index('jobs_listed').on(table.createdAt.desc(), table.id),
    index('jobs_under_way')
      .on(table.worker)
      .where(sql`${table.state} = 'running'`),
  ],
);
