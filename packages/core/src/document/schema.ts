import { isJsonObject, type Json } from './json';

/** One table describes a document: it validates, and it is what the published JSON Schema is made from. */
export type Schema =
  | { readonly kind: 'string'; readonly longest: number; readonly shortest?: number; readonly pattern?: string }
  | { readonly kind: 'number'; readonly least?: number; readonly most?: number; readonly whole?: boolean }
  | { readonly kind: 'boolean' }
  | { readonly kind: 'exactly'; readonly values: readonly (string | number)[] }
  | { readonly kind: 'list'; readonly of: Schema; readonly shortest: number; readonly longest: number }
  | { readonly kind: 'record'; readonly keys: string; readonly of: Schema; readonly longest: number }
  | { readonly kind: 'object'; readonly fields: Readonly<Record<string, Field>> }
  | { readonly kind: 'either'; readonly of: readonly Schema[]; readonly expected: string };

export interface Field {
  readonly schema: Schema;
  readonly optional?: boolean;
  readonly help?: string;
}

export interface Problem {
  /** Dotted place in the document, e.g. `surface.nodes.a1.x`; empty for the whole. */
  readonly place: string;
  readonly message: string;
}

const MOST_PROBLEMS = 20;

/** What is wrong with a value, at most 20 problems; nothing when it fits. */
export function validate(schema: Schema, value: unknown, place = ''): Problem[] {
  const problems: Problem[] = [];
  check(schema, value, place, problems);
  return problems;
}

function check(schema: Schema, value: unknown, place: string, problems: Problem[]): void {
  if (problems.length >= MOST_PROBLEMS) return;
  const say = (message: string): void => void problems.push({ place, message });
  const at = (key: string): string => (place ? `${place}.${key}` : key);
  switch (schema.kind) {
    case 'string':
      if (typeof value !== 'string') say(`must be text, found ${describe(value)}`);
      else if (value.length > schema.longest) say(`may have at most ${schema.longest} characters, has ${value.length}`);
      else if (value.length < (schema.shortest ?? 0)) say('must not be empty');
      else if (schema.pattern && !expression(schema.pattern).test(value))
        say(`has a form that is not allowed: ${JSON.stringify(value.slice(0, 40))}`);
      return;
    case 'number':
      if (typeof value !== 'number' || !Number.isFinite(value)) say(`must be a finite number, found ${describe(value)}`);
      else if (schema.whole && !Number.isInteger(value)) say(`must be a whole number, is ${value}`);
      else if (value < (schema.least ?? -Infinity) || value > (schema.most ?? Infinity)) say(`must lie ${rangeText(schema)}, is ${value}`);
      return;
    case 'boolean':
      if (typeof value !== 'boolean') say(`must be true or false, found ${describe(value)}`);
      return;
    case 'exactly':
      if (!schema.values.some((each) => each === value))
        say(`must be ${schema.values.map((each) => JSON.stringify(each)).join(' or ')}, found ${describe(value)}`);
      return;
    case 'list':
      if (!Array.isArray(value)) return say(`must be a list, found ${describe(value)}`);
      if (value.length < schema.shortest || value.length > schema.longest)
        return say(`must have ${countText(schema.shortest, schema.longest)}, has ${value.length}`);
      value.forEach((each: unknown, index) => check(schema.of, each, at(String(index)), problems));
      return;
    case 'record': {
      if (!isJsonObject(value)) return say(`must be an object, found ${describe(value)}`);
      const keys = Object.keys(value);
      if (keys.length > schema.longest) return say(`may have at most ${schema.longest} entries, has ${keys.length}`);
      const pattern = expression(schema.keys);
      for (const key of keys) {
        if (problems.length >= MOST_PROBLEMS) return;
        if (!pattern.test(key)) problems.push({ place: at(key.slice(0, 40)), message: 'has a name that is not allowed' });
        else check(schema.of, value[key], at(key), problems);
      }
      return;
    }
    case 'object':
      if (!isJsonObject(value)) return say(`must be an object, found ${describe(value)}`);
      for (const key in value) {
        if (problems.length >= MOST_PROBLEMS) return;
        if (!Object.hasOwn(schema.fields, key)) problems.push({ place: at(key.slice(0, 40)), message: 'is not known here' });
      }
      for (const [key, field] of Object.entries(schema.fields)) {
        if (value[key] !== undefined) check(field.schema, value[key], at(key), problems);
        else if (!field.optional) problems.push({ place: at(key), message: 'is missing' });
      }
      return;
    case 'either':
      if (schema.of.every((each) => validate(each, value).length > 0)) say(`must be ${schema.expected}, found ${describe(value)}`);
  }
}

/** Patterns are few, texts are many: each is compiled once. */
const expressions = new Map<string, RegExp>();

function expression(pattern: string): RegExp {
  let found = expressions.get(pattern);
  if (!found) expressions.set(pattern, (found = new RegExp(pattern)));
  return found;
}

function describe(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (value === null) return 'null';
  if (Array.isArray(value)) return `a list of ${value.length}`;
  if (typeof value === 'object') return 'an object';
  if (typeof value === 'string') return `the text ${JSON.stringify(value.slice(0, 40))}`;
  return typeof value === 'number' || typeof value === 'boolean' ? `${value}` : `a ${typeof value}`;
}

function rangeText({ least, most }: { least?: number; most?: number }): string {
  if (least === undefined) return `at or below ${most}`;
  return most === undefined ? `at or above ${least}` : `from ${least} to ${most}`;
}

function countText(shortest: number, longest: number): string {
  return shortest === longest ? `${shortest} entries` : `${shortest} to ${longest} entries`;
}

/** The same table as JSON Schema, draft 2020-12. */
export function toJsonSchema(schema: Schema): { [key: string]: Json } {
  switch (schema.kind) {
    case 'string':
      return {
        type: 'string',
        minLength: schema.shortest ?? 0,
        maxLength: schema.longest,
        ...(schema.pattern ? { pattern: schema.pattern } : {}),
      };
    case 'number':
      return {
        type: schema.whole ? 'integer' : 'number',
        ...(schema.least === undefined ? {} : { minimum: schema.least }),
        ...(schema.most === undefined ? {} : { maximum: schema.most }),
      };
    case 'boolean':
      return { type: 'boolean' };
    case 'exactly':
      return { enum: [...schema.values] };
    case 'list':
      return { type: 'array', items: toJsonSchema(schema.of), minItems: schema.shortest, maxItems: schema.longest };
    case 'record':
      return {
        type: 'object',
        propertyNames: { pattern: schema.keys },
        additionalProperties: toJsonSchema(schema.of),
        maxProperties: schema.longest,
      };
    case 'object': {
      const properties = Object.entries(schema.fields).map(([key, field]): [string, Json] => [
        key,
        { ...toJsonSchema(field.schema), ...(field.help ? { description: field.help } : {}) },
      ]);
      const required = Object.entries(schema.fields)
        .filter(([, field]) => !field.optional)
        .map(([key]) => key);
      return { type: 'object', properties: Object.fromEntries(properties), required, additionalProperties: false };
    }
    case 'either':
      return { anyOf: schema.of.map(toJsonSchema) };
  }
}
