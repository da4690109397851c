import { Injectable } from '@angular/core';
import { CHUNK_BYTES } from '@brelvin/core';
import { sha256Of } from '../files/sha256';
import { listQuery, type ListOptions } from './list-query';
import { ApiFailure, request } from './request';

/** A file of the workspace. */
export interface AssetSummary {
  readonly sha256: string;
  readonly name: string;
  readonly type: string;
  readonly size: number;
  readonly width: number;
  readonly height: number;
  readonly tags: readonly string[];
  readonly updatedAt: string;
}

/** What a file is kept as. */
export interface SentFile {
  readonly name: string;
  /** Media type. */
  readonly type: string;
  /** Of its content, where that is known already. */
  readonly sha256?: string;
}

/** The workspace's files, by the SHA-256 of their content. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class AssetApi {
  list(options: ListOptions = {}): Promise<{ assets: AssetSummary[]; total: number }> {
    return request('GET', `/assets?${listQuery(options)}`);
  }

  tags(): Promise<{ tags: { tag: string; count: number }[] }> {
    return request('GET', '/assets/tags');
  }

  /** Its name, its tags, and whether it is on the shelf; its content never changes. */
  change(
    sha256: string,
    change: { readonly name?: string; readonly tags?: readonly string[]; readonly deleted?: boolean },
  ): Promise<AssetSummary> {
    return request('PATCH', `/assets/${sha256}`, change);
  }

  /** Sends what the server does not have yet, piece by piece; `progress` goes from 0 to 1. */
  async send(file: Blob, kept: SentFile, progress: (share: number) => void, signal: AbortSignal): Promise<AssetSummary> {
    const sha256 = kept.sha256 ?? (await sha256Of(await file.arrayBuffer()));
    const { missing } = await request<{ missing: number[] }>('POST', '/assets', { ...kept, sha256, size: file.size }, signal);
    for (const [done, number] of missing.entries()) {
      progress(done / missing.length);
      const piece = file.slice(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES, 'application/octet-stream');
      await request('PUT', `/assets/${sha256}/chunks/${number}`, piece, signal);
    }
    progress(1);
    return request('POST', `/assets/${sha256}/finish`, undefined, signal);
  }

  async bytes(sha256: string, signal?: AbortSignal): Promise<ArrayBuffer> {
    const response = await fetch(this.url(sha256), { signal }).catch(() => undefined);
    if (!response) throw new ApiFailure(0, 'unreachable', 'The server can not be reached.');
    if (!response.ok) throw new ApiFailure(response.status, 'missing', 'The image is not in the workspace any more.');
    return response.arrayBuffer();
  }

  url(sha256: string): string {
    return `/api/assets/${sha256}`;
  }
}
