import { isJsonObject } from '../json';
import type { NumberForm, Schema } from './schema';

export interface Problem {
  /** Dotted place in what was looked at, e.g. `surface.nodes.a1.x`; empty for the whole. */
  readonly place: string;
  readonly message: string;
}

const MOST_PROBLEMS = 20;
const LONGEST_SHOWN = 40;

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
    case 'text':
      if (typeof value !== 'string') say(`must be text, found ${inWords(value)}`);
      else if (value.length > schema.longest) say(`may have at most ${schema.longest} characters, has ${value.length}`);
      else if (value.length < schema.shortest) say('must not be empty');
      else if (schema.pattern && !expression(schema.pattern).test(value))
        say(
          schema.expected
            ? `must be ${schema.expected}`
            : `has a form that is not allowed: ${JSON.stringify(value.slice(0, LONGEST_SHOWN))}`,
        );
      else if (schema.moment && Number.isNaN(Date.parse(value))) say(`must be a moment, found ${inWords(value)}`);
      return;
    case 'number':
      if (typeof value !== 'number' || !Number.isFinite(value)) say(`must be a finite number, found ${inWords(value)}`);
      else if (schema.whole && !Number.isInteger(value)) say(`must be a whole number, is ${value}`);
      else if (value < (schema.least ?? -Infinity) || value > (schema.most ?? Infinity)) say(`must lie ${rangeText(schema)}, is ${value}`);
      return;
    case 'boolean':
      if (typeof value !== 'boolean') say(`must be true or false, found ${inWords(value)}`);
      return;
    case 'none':
      if (value !== null) say(`must be null, found ${inWords(value)}`);
      return;
    case 'any':
      if (value === undefined) say('is missing');
      return;
    case 'exactly':
      if (!schema.values.some((each) => each === value)) say(`must be ${valuesText(schema.values)}, found ${inWords(value)}`);
      return;
    case 'list':
      if (!Array.isArray(value)) return say(`must be a list, found ${inWords(value)}`);
      if (value.length < schema.shortest || value.length > schema.longest)
        return say(`must have ${countText(schema.shortest, schema.longest)}, has ${value.length}`);
      for (let index = 0; index < value.length && problems.length < MOST_PROBLEMS; index++)
        check(schema.of, value[index], at(String(index)), problems);
      return;
    case 'record': {
      if (!isJsonObject(value)) return say(`must be an object, found ${inWords(value)}`);
      const keys = Object.keys(value);
      if (keys.length > schema.longest) return say(`may have at most ${schema.longest} entries, has ${keys.length}`);
      const named = expression(schema.keys);
      for (const key of keys) {
        if (problems.length >= MOST_PROBLEMS) return;
        if (!named.test(key)) problems.push({ place: at(key.slice(0, LONGEST_SHOWN)), message: 'has a name that is not allowed' });
        else check(schema.of, value[key], at(key), problems);
      }
      return;
    }
    case 'object':
      if (!isJsonObject(value)) return say(`must be an object, found ${inWords(value)}`);
      for (const key in value) {
        if (problems.length >= MOST_PROBLEMS) return;
        if (!Object.hasOwn(schema.fields, key)) problems.push({ place: at(key.slice(0, LONGEST_SHOWN)), message: 'is not known here' });
      }
      for (const [key, field] of Object.entries(schema.fields)) {
        if (value[key] !== undefined) check(field.schema, value[key], at(key), problems);
        else if (!field.optional) problems.push({ place: at(key), message: 'is missing' });
      }
      return;
    case 'either':
      if (schema.of.every((each) => validate(each, value).length > 0)) say(`must be ${schema.expected}, found ${inWords(value)}`);
  }
}

/** Patterns are few, texts are many: each is compiled once. */
const expressions = new Map<string, RegExp>();

function expression(source: string): RegExp {
  let found = expressions.get(source);
  if (!found) expressions.set(source, (found = new RegExp(source)));
  return found;
}

/** The values that are allowed, as they stand in messages. */
export function valuesText(values: readonly (string | number)[]): string {
  return values.map((each) => JSON.stringify(each)).join(' or ');
}

function inWords(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (value === null) return 'null';
  if (Array.isArray(value)) return `a list of ${value.length}`;
  if (typeof value === 'object') return 'an object';
  if (typeof value === 'string') return `the text ${JSON.stringify(value.slice(0, LONGEST_SHOWN))}`;
  return typeof value === 'number' || typeof value === 'boolean' ? `${value}` : `a ${typeof value}`;
}

function rangeText({ least, most }: NumberForm): string {
  if (least === undefined) return `at or below ${most}`;
  return most === undefined ? `at or above ${least}` : `from ${least} to ${most}`;
}

function countText(shortest: number, longest: number): string {
  return shortest === longest ? `${shortest} entries` : `${shortest} to ${longest} entries`;
}
