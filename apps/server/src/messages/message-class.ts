import type { Field, ObjectSchema } from '@brelvin/contract';
import { Transform, Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, Length, Matches, Max, MaxLength, Min } from 'class-validator';

type MessageClass<R> = new () => R;

const classes = new WeakMap<ObjectSchema, MessageClass<unknown>>();

/**
 * The class by which an address or a query is read: its values come as text, so numbers and switches are made of that.
 * Made once for each schema.
 */
export function messageClass<R>(schema: ObjectSchema<unknown, R>): MessageClass<R> {
  let found = classes.get(schema) as MessageClass<R> | undefined;
  if (!found) classes.set(schema, (found = made(schema)));
  return found;
}

function made<R>(schema: ObjectSchema<unknown, R>): MessageClass<R> {
  const fields = Object.entries(schema.fields);
  const defaults = Object.fromEntries(
    fields.filter(([, { otherwise }]) => otherwise !== undefined).map(([name, each]) => [name, each.otherwise]),
  );
  class Message {
    constructor() {
      Object.assign(this, defaults);
    }
  }
  for (const [name, field] of fields) for (const decorate of decoratorsOf(name, field)) decorate(Message.prototype, name);
  return Message as MessageClass<R>;
}

function decoratorsOf(name: string, { schema, optional }: Field): PropertyDecorator[] {
  const absent = optional ? [IsOptional()] : [];
  switch (schema.kind) {
    case 'text':
      if (schema.pattern) return [...absent, Matches(new RegExp(schema.pattern), { message: `must be ${schema.expected}` })];
      return [...absent, IsString(), schema.shortest > 0 ? Length(schema.shortest, schema.longest) : MaxLength(schema.longest)];
    case 'number':
      return [
        ...absent,
        Type(() => Number),
        schema.whole ? IsInt() : IsNumber(),
        ...(schema.least === undefined ? [] : [Min(schema.least)]),
        ...(schema.most === undefined ? [] : [Max(schema.most)]),
      ];
    case 'boolean':
      return [...absent, Transform(({ value }: { value: unknown }) => switchOf(value)), IsBoolean({ message: 'must be true or false' })];
    case 'exactly':
      return [...absent, IsIn([...schema.values], { message: `must be one of ${schema.values.join(', ')}` })];
    default:
      throw new Error(`${name}: neither addresses nor queries can hold this`);
  }
}

function switchOf(value: unknown): unknown {
  return value === 'true' ? true : value === 'false' ? false : value;
}
