import { CODE_NAME, DOCUMENT_KINDS, LONGEST_NAME, toJsonSchema, type Change, type DocumentKind, type Json } from '@brelvin/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema';
import { LARGEST_STEP } from '../store/records';
import { CHECKED_BY } from './describe-body';
import { ShelfMessage } from './shelf';

const ID = /^[A-Za-z0-9_-]{1,64}$/;
const FUNCTION_NAME = new RegExp(CODE_NAME);
const KINDS = Object.keys(DOCUMENT_KINDS);

export class DocumentParams {
  @Matches(ID, { message: 'must be 1 to 64 letters, digits, "-" or "_"' })
  id!: string;
}

export class ListMessage extends ShelfMessage {
  @IsIn(KINDS, { message: `must be one of ${KINDS.join(', ')}` })
  kind!: DocumentKind;
}

export class CreateMessage {
  @Matches(ID, { message: 'must be 1 to 64 letters, digits, "-" or "_"' })
  id!: string;

  @IsObject()
  @JSONSchema({ [CHECKED_BY]: 'the schema of its kind', anyOf: Object.values(DOCUMENT_KINDS).map((entry) => toJsonSchema(entry.schema)) })
  document!: object;
}

export class ChangeMessage implements Change {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(16)
  @IsString({ each: true })
  @MaxLength(200, { each: true })
  path!: string[];

  @IsOptional()
  value?: Json;
}

export class StepMessage {
  /** Chosen by the client; saving the same id again changes nothing. */
  @Matches(ID, { message: 'must be 1 to 64 letters, digits, "-" or "_"' })
  id!: string;

  @IsString()
  @Length(1, 200)
  label!: string;

  @IsOptional()
  @IsString()
  @MaxLength(64)
  gesture?: string;

  @IsOptional()
  @IsIn(['undo', 'redo'], { message: 'must be undo or redo' })
  direction?: 'undo' | 'redo';

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(20_000)
  @ValidateNested({ each: true })
  @Type(() => ChangeMessage)
  changes!: ChangeMessage[];
}

export class AppendMessage {
  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  after!: number;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(1000)
  @ValidateNested({ each: true })
  @Type(() => StepMessage)
  steps!: StepMessage[];
}

export class StepsAfterMessage {
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  after!: number;
}

export class KindMessage {
  @IsIn(KINDS, { message: `must be one of ${KINDS.join(', ')}` })
  kind!: DocumentKind;
}

export class HistoryMessage {
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(500)
  limit = 200;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  before?: number;
}

export class StepParams extends DocumentParams {
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  step!: number;
}

export class DocumentStep extends DocumentParams {
  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  step!: number;
}

export class VersionMessage {
  @IsString()
  @Length(1, LONGEST_NAME)
  name!: string;

  @IsInt()
  @Min(0)
  @Max(LARGEST_STEP)
  step!: number;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(1000)
  @ValidateNested({ each: true })
  @Type(() => DocumentStep)
  beside?: DocumentStep[];
}

export class FileMessage {
  @IsOptional()
  @IsIn(['inside', 'links'], { message: 'must be inside or links' })
  images: 'inside' | 'links' = 'inside';

  @IsOptional()
  @IsIn(['stage'], { message: 'must be stage' })
  with?: 'stage';
}

export class FunctionParams {
  @Matches(FUNCTION_NAME, { message: 'must be a name as in shading code: letters, digits and "_"' })
  name!: string;
}
