import { type Failure } from '@brelvin/contract';

/** An answer that is not the wished one, or none at all (`status` 0). */
export class ApiFailure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body: Partial<Failure> = {},
    /** Seconds after which the server wants to be asked again. */
    readonly retryAfter?: number,
  ) {
    super(message);
  }

  /** Nothing is wrong with the request: trying again later may help, or after one has signed in again. */
  get away(): boolean {
    return (
      this.status === 401 || this.status === 0 || this.status === 503 || this.status === 429 || this.status === 502 || this.status === 504
    );
  }
}

/** Asks the server. @throws ApiFailure; DOMException `AbortError` when the signal says so */
export async function request<T>(method: string, path: string, body?: object, signal?: AbortSignal): Promise<T> {
  return answerOf<T>(await ask(method, path, body, signal));
}

/** Asks the server for bytes. @throws ApiFailure; DOMException `AbortError` when the signal says so */
export async function requestFile(path: string, signal?: AbortSignal): Promise<Blob> {
  const response = await ask('GET', path, undefined, signal);
  return response.ok ? response.blob() : answerOf(response);
}

async function ask(method: string, path: string, body: object | undefined, signal: AbortSignal | undefined): Promise<Response> {
  const init: RequestInit = { method, signal };
  if (body instanceof Blob) Object.assign(init, { body, headers: { 'content-type': body.type || 'application/octet-stream' } });
  else if (body) Object.assign(init, { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
  try {
    return await fetch(`/api${path}`, init);
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ApiFailure(0, 'unreachable', 'The server cannot be reached.');
  }
}

async function answerOf<T>(response: Response): Promise<T> {
  const text = await response.text();
  const answer: unknown = text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : undefined;
  if (response.ok) return answer as T;
  const { error = 'unknown', message = response.statusText, ...rest } = (answer ?? {}) as { error?: string; message?: string };
  const wait = Number(response.headers.get('retry-after') ?? NaN);
  throw new ApiFailure(response.status, error, message, rest, Number.isFinite(wait) ? wait : undefined);
}
