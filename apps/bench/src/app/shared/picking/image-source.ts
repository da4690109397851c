import { formatDate } from '@angular/common';
import { inject, Injectable } from '@angular/core';
import type { AssetSummary } from '@brelvin/contract';
import { AssetApi } from '../api/asset-api';
import type { PickerEntry, PickerSource } from './picker-source';

/** Images of the workspace to be picked from, by their address. */
@Injectable({ providedIn: 'root' })
export class ImageSource implements PickerSource {
  private readonly api = inject(AssetApi);
  readonly words = ['image', 'images'] as const;
  /** Those that were listed: a picked one is among them. */
  private readonly listed = new Map<string, AssetSummary>();

  readonly page: PickerSource['page'] = async ({ search, tag, offset, limit }) => {
    const { assets, total } = await this.api.list({ search, tag, offset, limit, sort: 'changed', use: 'image' });
    for (const each of assets) this.listed.set(each.sha256, each);
    const entries = assets.map(({ sha256, name, tags, width, height, updatedAt }) => ({
      id: sha256,
      name,
      hint: [...tags, `${width} × ${height}`, formatDate(updatedAt, 'd MMM, HH:mm', 'en')].join(', '),
      picture: this.api.url(sha256),
    }));
    return { entries, total };
  };

  /** All that is known of an image that was picked. */
  picked({ id }: Pick<PickerEntry, 'id'>): AssetSummary | undefined {
    return this.listed.get(id);
  }

  readonly tags: PickerSource['tags'] = async () => (await this.api.tags()).tags;
}

/** Cube images are put together of six files: the workspace keeps none as one. */
export const NO_CUBE_IMAGES: PickerSource = {
  words: ['cube image', 'cube images'],
  page: async () => ({ entries: [], total: 0 }),
  tags: async () => [],
};
