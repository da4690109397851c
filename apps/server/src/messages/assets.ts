import { ENVIRONMENT_TYPES, IMAGE_TYPES, LARGEST_FILE, LONGEST_NAME, LONGEST_TAG, MOST_TAGS } from '@brelvin/core';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, Length, Matches, Max, Min } from 'class-validator';

const SHA256 = /^[0-9a-f]{64}$/;

export class AssetParams {
  @Matches(SHA256, { message: 'must be a SHA-256 in hexadecimal' })
  sha256!: string;
}

export class ChunkParams extends AssetParams {
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(LARGEST_FILE)
  number!: number;
}

export class ChangeAssetMessage {
  @IsOptional()
  @IsString()
  @Length(1, LONGEST_NAME)
  name?: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_TAGS)
  @IsString({ each: true })
  @Length(1, LONGEST_TAG, { each: true })
  tags?: string[];

  @IsOptional()
  @IsBoolean({ message: 'must be true or false' })
  deleted?: boolean;
}

export class AnnounceMessage extends AssetParams {
  @IsString()
  @Length(1, LONGEST_NAME)
  name!: string;

  @IsIn([...Object.keys(IMAGE_TYPES), ...Object.keys(ENVIRONMENT_TYPES)], {
    message: 'must be image/png, image/jpeg, image/webp, image/vnd.radiance or image/x-exr',
  })
  type!: string;

  @IsInt()
  @Min(1)
  @Max(LARGEST_FILE, { message: `may be at most ${LARGEST_FILE / 1024 / 1024} MiB` })
  size!: number;
}
