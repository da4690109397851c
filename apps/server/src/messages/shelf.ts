import { LONGEST_NAME, LONGEST_TAG } from '@brelvin/core';
import { Transform, Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

/** Asks for a part of a shelf of the Library. */
export class ShelfMessage {
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST_NAME)
  search?: string;

  @IsOptional()
  @IsString()
  @MaxLength(LONGEST_TAG)
  tag?: string;

  @IsOptional()
  @IsIn(['changed', 'name', 'made'], { message: 'must be changed, name or made' })
  sort?: 'changed' | 'name' | 'made';

  @IsOptional()
  @Transform(({ value }: { value: unknown }) => (value === 'true' ? true : value === 'false' ? false : value))
  @IsBoolean({ message: 'must be true or false' })
  deleted?: boolean;

  /** Of files: images for materials, environments, or meshes; all when absent. */
  @IsOptional()
  @IsIn(['image', 'environment', 'mesh'], { message: 'must be image, environment or mesh' })
  use?: 'image' | 'environment' | 'mesh';

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(1_000_000)
  offset = 0;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(200)
  limit = 60;
}
