import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { BadMessage, type FieldProblem } from './bad-message';

/**
 * Reads an address, a query or a small body by its class.
 *
 * @throws BadMessage that names each field at fault
 */
export async function readMessage<T extends object>(type: new () => T, value: unknown): Promise<T> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    throw new BadMessage([{ field: 'body', message: 'must be a JSON object' }]);
  }
  const message = plainToInstance(type, value);
  const errors = await validate(message, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  if (errors.length > 0) throw new BadMessage(errors.flatMap((error) => flatten(error, '')).slice(0, 20));
  return message;
}

function flatten(error: ValidationError, before: string): FieldProblem[] {
  const field = before ? `${before}.${error.property}` : error.property;
  const own = Object.values(error.constraints ?? {}).map((message) => ({ field, message: message.replace(`${error.property} `, '') }));
  return [...own, ...(error.children ?? []).flatMap((child) => flatten(child, field))];
}
