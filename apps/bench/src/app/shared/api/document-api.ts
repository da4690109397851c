import { Injectable } from '@angular/core';
import {
  type BrelvinDocument,
  type DocumentKind,
  type DocumentSummary,
  type FunctionUser,
  type HistoryPart,
  type NamedVersion,
  type NewVersion,
  type StoredDocument,
  type StoredFunction,
  type StoredStep,
  type TagCount,
  type Transaction,
} from '@brelvin/contract';
import { listQuery, type ListOptions } from './list-query';
import { request, requestFile } from './request';

export type { ListOptions } from './list-query';
export { ApiFailure } from './request';

/** The server's documents. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class DocumentApi {
  list(kind: DocumentKind, options: ListOptions = {}): Promise<{ documents: DocumentSummary[]; total: number }> {
    return request('GET', `/documents?${listQuery(options, { kind })}`);
  }

  tags(kind: DocumentKind): Promise<{ tags: TagCount[] }> {
    return request('GET', `/tags?kind=${kind}`);
  }

  create(id: string, document: BrelvinDocument): Promise<StoredDocument> {
    return request('POST', '/documents', { id, document });
  }

  read(id: string): Promise<StoredDocument> {
    return request('GET', `/documents/${id}`);
  }

  append(id: string, after: number, steps: readonly Transaction[]): Promise<{ step: number }> {
    return request('POST', `/documents/${id}/steps`, { after, steps });
  }

  stepsAfter(id: string, after: number): Promise<{ steps: StoredStep[] }> {
    return request('GET', `/documents/${id}/steps?after=${after}`);
  }

  history(id: string, limit = 200): Promise<HistoryPart> {
    return request('GET', `/documents/${id}/history?limit=${limit}`);
  }

  at(id: string, step: number): Promise<StoredDocument> {
    return request('GET', `/documents/${id}/at/${step}`);
  }

  versions(id: string): Promise<{ versions: NamedVersion[] }> {
    return request('GET', `/documents/${id}/versions`);
  }

  nameVersion(id: string, version: NewVersion): Promise<NamedVersion> {
    return request('POST', `/documents/${id}/versions`, version);
  }

  remove(id: string): Promise<void> {
    return request('DELETE', `/documents/${id}`);
  }

  restore(id: string): Promise<void> {
    return request('POST', `/documents/${id}/restore`);
  }

  functions(): Promise<{ functions: StoredFunction[] }> {
    return request('GET', '/functions');
  }

  functionUsers(name: string): Promise<{ users: FunctionUser[] }> {
    return request('GET', `/functions/${name}/users`);
  }

  /** What is seen with a document. */
  documentUsers(id: string): Promise<{ users: FunctionUser[] }> {
    return request('GET', `/documents/${id}/users`);
  }

  saveThumbnail(id: string, step: number, png: Blob): Promise<void> {
    return request('PUT', `/documents/${id}/thumbnail?step=${step}`, png);
  }

  thumbnailUrl(id: string, step: number): string {
    return `/api/documents/${id}/thumbnail?step=${step}`;
  }

  /** A document as a Brelvin file, with its stage or alone. */
  file(id: string, withStage: boolean, signal?: AbortSignal): Promise<Blob> {
    return requestFile(`/documents/${id}/file${withStage ? '?with=stage' : ''}`, signal);
  }
}
