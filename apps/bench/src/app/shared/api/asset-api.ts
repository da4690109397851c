import { Injectable } from '@angular/core';
import { type AssetChange, type AssetSummary, CHUNK_BYTES, type TagCount } from '@brelvin/contract';
import { sha256Of } from '@brelvin/io';
import pLimit from 'p-limit';
import { listQuery, type ListOptions } from './list-query';
import { ApiFailure, request } from './request';

/** Pieces of a file that are on their way at once: the server writes one down while another comes. */
const SENT_AT_ONCE = 3;

/** What a file is kept as. */
export interface SentFile {
  readonly name: string;
  /** Media type. */
  readonly type: string;
  /** Of its content, where that is known already. */
  readonly sha256?: string;
}

export interface Sending {
  /** Told the part that is sent, 0…1. */
  readonly progress: (share: number) => void;
  readonly signal: AbortSignal;
  /** The file is in the workspace only once this is done. */
  readonly before?: Promise<unknown>;
}

/** The workspace's files, by the SHA-256 of their content. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class AssetApi {
  list(options: ListOptions = {}): Promise<{ assets: AssetSummary[]; total: number }> {
    return request('GET', `/assets?${listQuery(options)}`);
  }

  tags(): Promise<{ tags: TagCount[] }> {
    return request('GET', '/assets/tags');
  }

  /** Its name, its tags, and whether it is on the shelf; its content never changes. */
  change(sha256: string, change: AssetChange): Promise<AssetSummary> {
    return request('PATCH', `/assets/${sha256}`, change);
  }

  /** Sends what the server does not have yet, piece by piece. */
  async send(file: Blob, kept: SentFile, { progress, signal, before }: Sending): Promise<AssetSummary> {
    const sha256 = kept.sha256 ?? (await sha256Of(await file.arrayBuffer()));
    const { missing } = await request<{ missing: number[] }>('POST', '/assets', { ...kept, sha256, size: file.size }, signal);
    let done = 0;
    progress(0);
    const turn = pLimit(SENT_AT_ONCE);
    const pieces = missing.map((number) =>
      turn(async () => {
        signal.throwIfAborted();
        const piece = file.slice(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES, 'application/octet-stream');
        await request('PUT', `/assets/${sha256}/chunks/${number}`, piece, signal);
        progress(++done / missing.length);
      }),
    );
    await Promise.all(pieces);
    await before;
    return request('POST', `/assets/${sha256}/finish`, undefined, signal);
  }

  async bytes(sha256: string, signal?: AbortSignal): Promise<ArrayBuffer> {
    const response = await fetch(this.url(sha256), { signal }).catch(() => undefined);
    if (!response) throw new ApiFailure(0, 'unreachable', 'The server cannot be reached.');
    if (!response.ok) throw new ApiFailure(response.status, 'missing', 'The image is not in the workspace any more.');
    return response.arrayBuffer();
  }

  url(sha256: string): string {
    return `/api/assets/${sha256}`;
  }
}
