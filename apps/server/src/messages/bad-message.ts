export interface FieldProblem {
  readonly field: string;
  readonly message: string;
}

/** A request whose body or query does not have the expected form. */
export class BadMessage extends Error {
  readonly statusCode = 400;

  constructor(readonly fields: readonly FieldProblem[]) {
    super(fields.map(({ field, message }) => `${field}: ${message}`).join('; ') || 'The request has no readable body.');
  }
}
