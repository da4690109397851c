import { InvalidDocument } from '@brelvin/core';
import type { FastifyError, FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { BadMessage } from '../messages/bad-message';
import { isDatabaseAway, isDatabaseBusy } from '../store/database';
import {
  AssetMissing,
  AssetRefused,
  DocumentGone,
  DocumentMissing,
  FileTooLarge,
  FunctionNameTaken,
  IdTaken,
  JobMissing,
  StaleSave,
  StepMissing,
  TooManyUploads,
  UnfitStep,
  VersionNameTaken,
} from '../store/failures';
import { inShort } from './failure-in-short';

/** When somebody who was told to wait may ask again. */
const RETRY_SECONDS = 2;

interface Answer {
  readonly status: number;
  /** For programs; `message` is for people. */
  readonly error: string;
  readonly message: string;
  readonly details?: object;
}

/** Every failure is answered in one form: `{ error, message, … }`. */
export const errors = plugin(async (app: FastifyInstance) => {
  app.setErrorHandler((error: FastifyError, request, reply) => {
    const { status, details, ...answer } = answerTo(error, request.routeOptions.bodyLimit);
    if (status >= 500) request.log.error({ reason: inShort(error) }, 'request failed');
    if (status === 503) void reply.header('retry-after', RETRY_SECONDS);
    void reply.status(status).send({ ...answer, ...details });
  });
});

function answerTo(error: FastifyError, mostBytes = 0): Answer {
  const { message } = error;
  if (error instanceof BadMessage) return { status: 400, error: 'bad-message', message, details: { fields: error.fields } };
  if (error instanceof InvalidDocument) return { status: 422, error: 'invalid-document', message, details: { problems: error.problems } };
  if (error instanceof UnfitStep) return { status: 422, error: 'unfit-step', message, details: { problems: error.problems } };
  if (error instanceof FileTooLarge) return { status: 413, error: 'too-large', message };
  if (error instanceof AssetMissing) return { status: 404, error: 'missing', message };
  if (error instanceof AssetRefused) return { status: 422, error: 'refused-file', message };
  if (error instanceof TooManyUploads) return { status: 429, error: 'too-many-uploads', message };
  if (error instanceof StepMissing) return { status: 422, error: 'no-such-step', message };
  if (error instanceof FunctionNameTaken) return { status: 422, error: 'name-taken', message };
  if (error instanceof VersionNameTaken) return { status: 409, error: 'name-taken', message };
  if (error instanceof JobMissing) return { status: 404, error: 'missing', message };
  if (error instanceof DocumentMissing) return { status: 404, error: 'missing', message };
  if (error instanceof DocumentGone) return { status: 410, error: 'deleted', message, details: { name: error.documentName } };
  if (error instanceof IdTaken) return { status: 409, error: 'id-taken', message };
  if (error instanceof StaleSave) return { status: 409, error: 'stale', message, details: { step: error.step, missed: error.missed } };
  if (isDatabaseBusy(error))
    return {
      status: 503,
      error: 'busy',
      message: 'The server has more to do than it can at once. Edits are kept in the page and saved in a moment.',
    };
  if (isDatabaseAway(error))
    return {
      status: 503,
      error: 'database-away',
      message: 'The database cannot be reached. Edits are kept in the page and saved when it is back.',
    };
  if (error.statusCode === 413)
    return {
      status: 413,
      error: 'too-large',
      message: `The request is larger than ${bytesText(mostBytes)}, the most that is taken at once here.`,
    };
  if (error.statusCode === 429) return { status: 429, error: 'too-many', message: 'Too many requests; wait a moment.' };
  if (error.statusCode !== undefined && error.statusCode < 500) return { status: error.statusCode, error: 'refused', message };
  return { status: 500, error: 'defect', message: 'Something went wrong in the server; its log says what.' };
}

function bytesText(bytes: number): string {
  const kibibytes = Math.round(bytes / 1024);
  return kibibytes < 1024 ? `${kibibytes} KiB` : `${Math.round(kibibytes / 1024)} MiB`;
}
