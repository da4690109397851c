import {
  ENVIRONMENT_TYPES,
  IMAGE_TYPES,
  LARGEST_FILE,
  LARGEST_MESH_FILE,
  LONGEST_NAME,
  LONGEST_TAG,
  MESH_TYPE,
  MOST_TAGS,
} from '@brelvin/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  Validate,
  ValidatorConstraint,
  type ValidationArguments,
  type ValidatorConstraintInterface,
} from 'class-validator';

const SHA256 = /^[0-9a-f]{64}$/;

/** Meshes may be larger than images. */
@ValidatorConstraint({ name: 'fitsItsType' })
class FitsItsType implements ValidatorConstraintInterface {
  validate(size: unknown, { object }: ValidationArguments): boolean {
    return typeof size === 'number' && size <= mostBytes(object as AnnounceMessage);
  }

  defaultMessage({ object }: ValidationArguments): string {
    return `may be at most ${mostBytes(object as AnnounceMessage) / 1024 / 1024} MiB`;
  }
}

function mostBytes({ type }: AnnounceMessage): number {
  return type === MESH_TYPE ? LARGEST_MESH_FILE : LARGEST_FILE;
}

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

  @IsIn([...Object.keys(IMAGE_TYPES), ...Object.keys(ENVIRONMENT_TYPES), MESH_TYPE], {
    message: `must be image/png, image/jpeg, image/webp, image/vnd.radiance, image/x-exr or ${MESH_TYPE}`,
  })
  type!: string;

  @IsInt()
  @Min(1)
  @Validate(FitsItsType)
  size!: number;
}
