import { inject, Injectable, signal } from '@angular/core';
import { type MaterialImage, type AssetSummary } from '@brelvin/contract';
import { AssetApi } from '../../shared/api/asset-api';

/** What became of a link: the workspace has this copy, a newer one, none any more, or could not be asked. */
export type LinkState =
  | { readonly kind: 'same' }
  | { readonly kind: 'newer'; readonly asset: AssetSummary }
  | { readonly kind: 'lost' }
  | { readonly kind: 'unknown' };

/** Looks up what the workspace has now under the names that images follow. */
@Injectable()
export class LinkedImages {
  private readonly api = inject(AssetApi);
  /** By the name that is followed and the copy that is had. */
  readonly states = signal<ReadonlyMap<string, LinkState>>(new Map());

  stateOf({ linked, asset }: Pick<MaterialImage, 'linked' | 'asset'>): LinkState | undefined {
    return linked === undefined ? undefined : this.states().get(`${linked} ${asset}`);
  }

  /** Asks anew for every link. */
  async look(images: readonly MaterialImage[]): Promise<void> {
    const found = await Promise.all(
      images.flatMap(({ linked, asset }) =>
        linked === undefined ? [] : [this.find(linked, asset).then((state) => [`${linked} ${asset}`, state] as const)],
      ),
    );
    this.states.set(new Map(found));
  }

  private async find(name: string, copy: string): Promise<LinkState> {
    try {
      const { assets } = await this.api.list({ search: name, use: 'image', sort: 'changed', limit: 100 });
      const [newest] = assets.filter((asset) => asset.name === name);
      if (!newest) return { kind: 'lost' };
      return newest.sha256 === copy ? { kind: 'same' } : { kind: 'newer', asset: newest };
    } catch {
      return { kind: 'unknown' };
    }
  }
}
