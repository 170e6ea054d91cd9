/** Request to make a project from uploaded files. */
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsString,
  Matches,
  MaxLength,
  MinLength,
  ValidateNested
} from 'class-validator';
import { type LengthUnit, METRES_PER_UNIT } from '../core/units/units';
import type { Result } from '../core/result/result';
import { check } from './validate';

class UploadedFile {
  @Matches(/^[0-9a-f]{64}$/, { message: 'must name an upload' }) upload = '';
  @IsString() @MinLength(1) @MaxLength(300) name = '';
}

class NewProjectContract {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(2000)
  @ValidateNested({ each: true })
  @Type(() => UploadedFile)
  files: UploadedFile[] = [];
  @IsIn(Object.keys(METRES_PER_UNIT), { message: `must be one of ${Object.keys(METRES_PER_UNIT).join(', ')}` })
  unit: LengthUnit = 'm';
  @IsIn(['y', 'z'], { message: 'must be y or z' }) up: 'y' | 'z' = 'y';
}

export const parseNewProject = (input: unknown): Result<NewProjectContract> =>
  check(NewProjectContract, input, 'project');
