import { formatDate } from '@angular/common';
import { inject, Injectable } from '@angular/core';
import type { MeshShape } from '@brelvin/contract';
import { OFFERED_SHAPES, MESH_SHAPES } from '@brelvin/core';
import { AssetApi } from '../api/asset-api';
import type { PickerEntry, PickerSource } from './picker-source';

const FILE = 'file:';

/** Meshes to be picked from: those that are made here, then those of files that the workspace keeps. */
@Injectable({ providedIn: 'root' })
export class MeshSource implements PickerSource {
  private readonly api = inject(AssetApi);
  readonly words = ['mesh', 'meshes'] as const;

  readonly page: PickerSource['page'] = async ({ search, tag, offset, limit }) => {
    const word = search.toLowerCase();
    const made = tag === undefined ? OFFERED_SHAPES.filter((shape) => MESH_SHAPES[shape].label.toLowerCase().includes(word)) : [];
    const first = made.slice(offset, offset + limit).map((shape): PickerEntry => ({
      id: shape,
      name: MESH_SHAPES[shape].label,
      hint: 'made here',
      icon: shape,
    }));
    const rest = { offset: Math.max(0, offset - made.length), limit: Math.max(1, limit - first.length) };
    const { assets, total } = await this.api.list({ search, tag, ...rest, sort: 'changed', use: 'mesh' });
    const files = assets.slice(0, limit - first.length).map(({ sha256, name, tags, updatedAt }): PickerEntry => ({
      id: FILE + sha256,
      name,
      hint: [...tags, formatDate(updatedAt, 'd MMM, HH:mm', 'en')].join(', '),
      icon: 'imported',
    }));
    return { entries: [...first, ...files], total: made.length + total };
  };

  readonly tags: PickerSource['tags'] = async () => [];
}

/** What was picked: a shape that is made here, or a mesh of the workspace. */
export function pickedMesh({ id }: Pick<PickerEntry, 'id'>): { readonly shape: MeshShape } | { readonly asset: string } | undefined {
  if (id.startsWith(FILE)) return { asset: id.slice(FILE.length) };
  const shape = OFFERED_SHAPES.find((each) => each === id);
  return shape && { shape };
}
