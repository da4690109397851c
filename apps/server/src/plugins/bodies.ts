import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { BadMessage } from '../messages/bad-message';
import { checkOfBody } from '../messages/body';
import { refuseEndless } from '../messages/json-census';
import { refuseUnsound } from '../messages/sound-json';

/**
 * What comes in is bounded before anything walks it: its bytes by the route, its values by a look over its text, its form by
 * the schema that the route is described by. Addresses and queries are text; message classes read those.
 */
export const bodies = plugin(async (app: FastifyInstance) => {
  app.setValidatorCompiler<object>(({ schema, httpPart }) => {
    if (httpPart !== 'body') return () => true;
    const check = checkOfBody(schema);
    return (body: unknown) => {
      const problems = check(body);
      return problems.length === 0 || { error: new BadMessage(problems) };
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
