import { createRequire } from 'node:module';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';

/** A description of what may come in, as JSON Schema. */
export interface Description {
  readonly [key: string]: unknown;
}

/** Marks a part that something more fitting than JSON Schema checks: its description is there to be read. */
export const CHECKED_BY = 'x-checked-by';

const REFERENCE = '#/messages/';
/** Where class-transformer keeps the classes of nested values; it exports this nowhere else. */
const nested = (createRequire(import.meta.url)('class-transformer/cjs/storage.js') as { defaultMetadataStorage: never })
  .defaultMetadataStorage;

/** What a message class asks of a body, whole: fields it does not name are refused. */
export function bodyOf(type: new () => object): Description {
  const all = validationMetadatasToSchemas({
    classTransformerMetadataStorage: nested,
    refPointerPrefix: REFERENCE,
    additionalConverters: {
      matches: ({ constraints, message }) => ({ type: 'string', pattern: (constraints?.[0] as RegExp).source, ...inWords(message) }),
      isIn: ({ constraints, message }) => ({ enum: constraints?.[0] as unknown[], ...inWords(message) }),
    },
  });
  return written({ $ref: `${REFERENCE}${type.name}` }, all as Readonly<Record<string, Description>>) as Description;
}

/** A pattern is a riddle: its words are part of the description, and said where it does not fit. */
function inWords(message: unknown): { description?: string } {
  return typeof message === 'string' ? { description: message } : {};
}

/** With every message in the place where it is named. */
function written(value: unknown, all: Readonly<Record<string, Description>>): unknown {
  if (Array.isArray(value)) return value.map((each) => written(each, all));
  if (typeof value !== 'object' || value === null) return value;
  const { $ref } = value as { $ref?: string };
  if ($ref?.startsWith(REFERENCE))
    return { ...(written(all[$ref.slice(REFERENCE.length)], all) as Description), additionalProperties: false };
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, written(each, all)]));
}

/** What is checked here of a description: parts that others check may be anything of their type. */
export function checkedHere(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(checkedHere);
  if (typeof value !== 'object' || value === null) return value;
  if (CHECKED_BY in value) return 'type' in value ? { type: value.type } : {};
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, checkedHere(each)]));
}
