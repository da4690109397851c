import 'reflect-metadata';
import type { ObjectSchema } from '@brelvin/contract';
import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { BadMessage, type FieldProblem } from './bad-message';
import { messageClass } from './message-class';

/**
 * Reads an address or a query.
 *
 * @throws BadMessage that names each field at fault
 */
export async function readMessage<R>(schema: ObjectSchema<unknown, R>, value: unknown): Promise<R> {
  const message = plainToInstance(messageClass(schema), value) as object;
  const errors = await validate(message, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  if (errors.length > 0) throw new BadMessage(errors.flatMap(problemsOf).slice(0, 20));
  return message as R;
}

function problemsOf({ property, constraints = {} }: ValidationError): FieldProblem[] {
  return Object.entries(constraints).map(([check, message]) => ({
    field: property,
    message: check === 'whitelistValidation' ? 'is not known here' : message.replace(`${property} `, ''),
  }));
}
