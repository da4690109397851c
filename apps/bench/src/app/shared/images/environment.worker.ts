import type { EnvironmentPixels } from '@brelvin/core';
import { readEnvironment, type EnvironmentFile } from '@brelvin/io';
import { expose, transfer } from 'comlink';
import { pageCodecs, pageExr } from './page-codecs';

/** Decodes environments apart from the page. What is no longer wanted goes with the worker. */
class EnvironmentDecoder {
  private readonly readers = { codecs: pageCodecs(), exr: pageExr() };

  /**
   * @param files one panorama, or six faces in the order of a cube’s
   * @param onShare told the part that is done, 0…1
   * @throws Error with words for the user
   */
  async decode(files: readonly EnvironmentFile[], onShare: (share: number) => void): Promise<EnvironmentPixels> {
    const pixels = await readEnvironment(this.readers, files, onShare);
    return transfer(
      pixels,
      [...pixels.levels, ...(pixels.dimmed ?? [])].map(({ buffer }) => buffer),
    );
  }
}

export type RemoteEnvironments = EnvironmentDecoder;

expose(new EnvironmentDecoder());
