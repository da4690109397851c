import { Ajv, type ErrorObject } from 'ajv';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { BadMessage, type FieldProblem } from '../messages/bad-message';
import { checkedHere } from '../messages/describe-body';
import { refuseEndless } from '../messages/json-census';
import { refuseUnsound } from '../messages/sound-json';

/**
 * What comes in is bounded before anything walks it: its bytes by the route, its values by a look over its text, its form by
 * the route's description, compiled. Addresses and queries are short; message classes check those.
 */
export const bodies = plugin(async (app: FastifyInstance) => {
  const first = new Ajv({ strict: false, verbose: true });
  const all = new Ajv({ strict: false, verbose: true, allErrors: true });
  app.setValidatorCompiler(({ schema, httpPart }) => {
    if (httpPart !== 'body') return () => true;
    const checked = checkedHere(schema) as object;
    const fits = first.compile(checked);
    return (body: unknown) => {
      if (fits(body)) return true;
      // All that is wrong with a body is told where that is little to look for.
      const tellsAll = isSmall(body) ? all.compile(checked) : fits;
      tellsAll(body);
      return { error: new BadMessage((tellsAll.errors ?? []).slice(0, MOST_TOLD).map(problemOf)) };
    };
  });
  const parse = app.getDefaultJsonParser('error', 'error');
  app.addContentTypeParser('application/json', { parseAs: 'buffer' }, (request, text: Buffer, done) => {
    try {
      refuseEndless(text);
    } catch (error) {
      return done(error as Error);
    }
    return parse(request, text.toString('utf8'), (error, body) => {
      try {
        // In JSON, a NUL and half of a pair can only be written as escapes.
        if (!error && text.includes('\\u')) refuseUnsound(body);
        done(error, body);
      } catch (unsound) {
        done(unsound as Error);
      }
    });
  });
});

const MOST_TOLD = 20;

/** Whether a body is of the size that a person writes: few fields, few entries. */
function isSmall(body: unknown): boolean {
  return typeof body === 'object' && body !== null && JSON.stringify(body).length < 10_000;
}

function problemOf({ instancePath, keyword, params, parentSchema, message = 'is not as expected' }: ErrorObject): FieldProblem {
  const { additionalProperty, missingProperty } = params as { additionalProperty?: string; missingProperty?: string };
  const keys = instancePath.split('/').slice(1);
  const own = additionalProperty ?? missingProperty;
  const field = (own === undefined ? keys : [...keys, own.slice(0, 80)]).join('.') || 'body';
  if (keyword === 'additionalProperties') return { field, message: 'is not known here' };
  if (keyword === 'required') return { field, message: 'is missing' };
  if (keyword === 'type' && field === 'body') return { field, message: 'must be a JSON object' };
  const { description } = (parentSchema ?? {}) as { description?: string };
  return { field, message: (keyword === 'pattern' || keyword === 'enum') && description ? description : message };
}
