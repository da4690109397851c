import { assetAddress, LONGEST_NAME, name, tags } from '../documents/names';
import { FILE_USES, LARGEST_FILE, LARGEST_MESH_FILE } from '../files';
import { count, described, flag, list, moment, object, oneOf, optional, text, whole, type TypeOf } from '../schema/schema';

const types = Object.values(FILE_USES).flat();

// What is asked

export const ASSET_ADDRESS = object({ sha256: assetAddress });
export const CHUNK_ADDRESS = object({ sha256: assetAddress, number: whole(0, LARGEST_FILE) });
export const ASSET_CHANGE = object({
  name: optional(name),
  tags: optional(tags),
  deleted: optional(flag, 'Whether it is taken off the shelf, or put back.'),
});
/** What a sender says of a file. Meshes may be larger than images: `mostBytesOf`. */
export const ANNOUNCEMENT = object({
  sha256: assetAddress,
  name,
  type: oneOf(types),
  size: described(whole(1, LARGEST_MESH_FILE), 'Bytes.'),
});

// What is answered

export const ASSET_SUMMARY = object({
  sha256: assetAddress,
  name: text(LONGEST_NAME),
  type: oneOf(types),
  size: described(count, 'Bytes.'),
  width: described(count, 'Pixels; of meshes nothing.'),
  height: count,
  tags,
  updatedAt: moment,
});
export const ASSET_LIST = object({ assets: list(ASSET_SUMMARY, 0, 200), total: count });
export const MISSING_CHUNKS = object({ missing: described(list(count, 0, LARGEST_MESH_FILE), 'Numbers of the chunks to send.') });

/** What may be changed about a file; its content never does. */
export interface AssetChange extends TypeOf<typeof ASSET_CHANGE> {}

export interface Announcement extends TypeOf<typeof ANNOUNCEMENT> {}

/** A file of the workspace. */
export interface AssetSummary extends TypeOf<typeof ASSET_SUMMARY> {}
