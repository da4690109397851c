import { effectAt, fieldsOf } from './effect';
import { toJsonSchema } from './json-schema';
import {
  anything,
  described,
  either,
  flag,
  inert,
  list,
  moment,
  none,
  number,
  object,
  oneOf,
  optional,
  pattern,
  record,
  text,
  tunable,
  tuple,
  whole,
  withDefault,
  type Schema,
  type TypeOf,
} from './schema';
import { validate } from './validate';

describe('A schema', () => {
  const LAMP = object({
    name: text(8, 1),
    watts: described(whole(1, 5), 'How many.'),
    place: tuple(number(), 3),
    shade: optional(oneOf(['paper', 'glass']), 'What is round it.'),
  });
  const lamp: TypeOf<typeof LAMP> = { name: 'Loft', watts: 2, place: [0, 1, 2] };

  it('is the type of what it describes', () => {
    const { name, shade }: { readonly name: string; readonly shade?: 'paper' | 'glass' } = lamp;
    expect([name, shade]).toEqual(['Loft', undefined]);
    // @ts-expect-error: a field that the schema does not know
    const wrong: TypeOf<typeof LAMP> = { ...lamp, colour: 1 };
    expect(validate(LAMP, wrong)).toEqual([{ place: 'colour', message: 'is not known here' }]);
  });

  it('carries limits and help over to JSON Schema', () => {
    expect(toJsonSchema(LAMP) as object).toEqual({
      type: 'object',
      properties: {
        name: { type: 'string', minLength: 1, maxLength: 8 },
        watts: { type: 'integer', minimum: 1, maximum: 5, description: 'How many.' },
        place: { type: 'array', items: { type: 'number', minimum: -1e9, maximum: 1e9 }, minItems: 3, maxItems: 3 },
        shade: { enum: ['paper', 'glass'], description: 'What is round it.' },
      },
      required: ['name', 'watts', 'place'],
      additionalProperties: false,
    });
    const query = object({ limit: withDefault(whole(1, 9), 3), at: moment, nothing: none });
    expect(toJsonSchema(query)['properties'] as object).toEqual({
      limit: { type: 'integer', minimum: 1, maximum: 9, default: 3 },
      at: { type: 'string', format: 'date-time' },
      nothing: { type: 'null' },
    });
  });

  const cases: readonly (readonly [what: string, schema: Schema, value: unknown, problems: readonly string[]])[] = [
    ['what fits', LAMP, lamp, []],
    ['what is missing', LAMP, { name: 'x', watts: 1 }, ['place is missing']],
    ['a list for an object', LAMP, [], [' must be an object, found a list of 0']],
    ['half a number', LAMP, { ...lamp, watts: 2.5 }, ['watts must be a whole number, is 2.5']],
    ['too much', LAMP, { ...lamp, watts: 9 }, ['watts must lie from 1 to 5, is 9']],
    ['what is no number', number(), NaN, [' must be a finite number, found NaN']],
    ['a wrong entry', LAMP, { ...lamp, place: [0, 'up', 2] }, ['place.1 must be a finite number, found the text "up"']],
    ['too few entries', LAMP, { ...lamp, place: [0] }, ['place must have 3 entries, has 1']],
    ['an unknown word', LAMP, { ...lamp, shade: 'tin' }, ['shade must be "paper" or "glass", found the text "tin"']],
    ['too long a text', LAMP, { ...lamp, name: 'a very long one' }, ['name may have at most 8 characters, has 15']],
    ['no text', LAMP, { ...lamp, name: '' }, ['name must not be empty']],
    ['a pattern', pattern('^a+$', 9), 'b', [' has a form that is not allowed: "b"']],
    ['a pattern with words', pattern('^a+$', 9, 'only a'), 'b', [' must be only a']],
    ['an odd name', record(flag, 9, '^[a-z]+$'), { ok: true, '': true }, [' has a name that is not allowed']],
    ['too many entries', record(flag, 1, '^[a-z]+$'), { a: true, b: true }, [' may have at most 1 entries, has 2']],
    ['neither', either([number(), none], 'a number or nothing'), 'x', [' must be a number or nothing, found the text "x"']],
    ['either', list(either([number(), none], 'a number or nothing'), 0, 9), [1, null], []],
    ['a moment', moment, 'noon', [' must be a moment, found the text "noon"']],
    ['a moment that is one', moment, new Date(0).toISOString(), []],
    ['no switch', flag, 1, [' must be true or false, found 1']],
    ['anything', anything(), { deep: [null] }, []],
  ];
  for (const [what, schema, value, problems] of cases) {
    it(`says of ${what} what there is to say`, () => {
      expect(validate(schema, value).map(({ place, message }) => `${place} ${message}`)).toEqual([...problems]);
    });
  }

  it('stops after twenty problems', () => {
    expect(
      validate(
        list(number(), 0, 100),
        Array.from({ length: 50 }, () => 'x'),
      ).length,
    ).toBe(20);
  });

  it('says what a change at a path can ask for', () => {
    const NODE = object({ kind: text(9), x: inert(number()), values: tunable(record(number(), 9, '^[a-z]+$')) });
    const GRAPH = object({ nodes: record(NODE, 9, '^[a-z]+$'), notes: inert(record(text(9), 9, '^[a-z]+$')), tint: tunable(number()) });
    const effects = ['nodes', 'nodes.a', 'nodes.a.kind', 'nodes.a.x', 'nodes.a.values', 'nodes.a.values.b', 'notes.n', 'tint', 'sky'];
    expect(effects.map((path) => effectAt(GRAPH, path.split('.')))).toEqual([
      'structure',
      'structure',
      'structure',
      'none',
      'structure',
      'value',
      'none',
      'value',
      'structure',
    ]);
    expect([fieldsOf(NODE, 'structure'), fieldsOf(NODE, 'none'), fieldsOf(NODE, 'value')]).toEqual([['kind'], ['x'], ['values']]);
  });
});
