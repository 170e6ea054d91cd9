/** What the browser may send: a class a request, checked before any use case sees it. */
import 'reflect-metadata';
import { REMOVABLE_KINDS, type RemovableKind } from '../core/catalogue/removable';
import { Type } from 'class-transformer';
import {
  Allow,
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested
} from 'class-validator';
import { BRIEF_VERSION } from '../core/brief/brief';
import { KEPT_KINDS, type KeptKind } from '../core/brief/kept-part';
import { REPAIRS, type Repair } from '../core/scene/health';
import { FINENESSES, type Fineness } from '../core/units/read-as';
import { type LengthUnit, METRES_PER_UNIT } from '../core/units/units';

const SHA256 = /^[0-9a-f]{64}$/;
const UNITS = Object.keys(METRES_PER_UNIT);
const MAX_PX = 4096;

/** No fields; the validator refuses a class that has no rule at all. */
export class NoBody {
  @IsOptional() nothing?: undefined;
}

class UploadedFile {
  @Matches(SHA256, { message: 'must name an upload' }) upload = '';
  @IsString() @MinLength(1) @MaxLength(300) name = '';
}

export class RecogniseBody {
  @IsArray()
  @ArrayMinSize(1, { message: 'must name a model file' })
  @ArrayMaxSize(2000)
  @ValidateNested({ each: true })
  @Type(() => UploadedFile)
  files: UploadedFile[] = [];
}

/** A unit or axis that is null is what the file's format states. */
export class NewProjectBody extends RecogniseBody {
  @ValidateIf((o: NewProjectBody) => o.unit !== null)
  @IsIn(UNITS, { message: `must be one of ${UNITS.join(', ')} or null` })
  unit: LengthUnit | null = null;
  @ValidateIf((o: NewProjectBody) => o.up !== null)
  @IsIn(['y', 'z'], { message: 'must be y, z or null' })
  up: 'y' | 'z' | null = null;
}

/** A file that has arrived, for a library. */
export class UploadBody {
  @Matches(SHA256, { message: 'must name an upload' }) upload = '';
  @IsString() @MinLength(1) @MaxLength(300) name = '';
}
export class PictureBody extends UploadBody {
  /** What it is brought in for. */
  @IsIn(['behind', 'surface']) purpose: 'behind' | 'surface' = 'behind';
}
export class CapturedBody extends UploadBody {
  /** Whether an image that is too large may be made smaller. */
  @IsBoolean() reduce = false;
}

/** Rules of materials, which are checked as those of a brief. */
export class MaterialsBody {
  @Allow() version: unknown = BRIEF_VERSION;
  @Allow() materials: unknown;
}
/** Briefs are checked by their own contract. */
export class BriefBody {
  @Allow() brief: unknown;
}
export class ChangeBriefBody extends BriefBody {
  /** It goes on with the change before: both are one step of undo. */
  @IsBoolean() joins = false;
  /** The brief that was changed; what others changed of it meanwhile is merged. Null: what is there is replaced. */
  @IsOptional() from: unknown = null;
}
export class CropBody extends BriefBody {
  @IsNumber() @Min(0) @Max(1) x = 0.5;
  @IsNumber() @Min(0) @Max(1) y = 0.5;
}
const isPixels = () => (target: object, key: string) => {
  const message = `must be a whole number from 1 to ${MAX_PX}`;
  IsInt({ message })(target, key);
  Min(1, { message })(target, key);
  Max(MAX_PX, { message })(target, key);
};
export class PreviewBody extends BriefBody {
  @isPixels() width = 0;
  @isPixels() height = 0;
  /** Keys of what the browser has. */
  @ValidateIf((o: PreviewBody) => o.pack !== null) @IsString() @MaxLength(64) pack: string | null = null;
  @ValidateIf((o: PreviewBody) => o.rig !== null) @IsString() @MaxLength(64) rig: string | null = null;
  @ValidateIf((o: PreviewBody) => o.light !== null) @IsString() @MaxLength(1000) light: string | null = null;
  @IsBoolean() exact = false;
}

/** What a model is read as. */
export class ReadAsBody {
  @IsIn(UNITS, { message: `must be one of ${UNITS.join(', ')}` })
  unit: LengthUnit = 'm';
  @IsIn(['y', 'z'], { message: 'must be y or z' }) up: 'y' | 'z' = 'y';
}

export class FinenessBody {
  @IsIn(FINENESSES, { message: `must be one of ${FINENESSES.join(', ')}` }) fineness: Fineness = 'medium';
}

export class RepairsBody {
  @IsArray()
  @IsIn(REPAIRS, { each: true, message: `must each be one of ${REPAIRS.join(', ')}` })
  repairs: Repair[] = [];
}

export class WatchBody {
  @ValidateIf((o: WatchBody) => o.file !== null)
  @IsString()
  @MaxLength(1000)
  file: string | null = null;
}

export class MoveStepBody {
  @IsIn([1, -1], { message: 'must be 1 or -1' }) by: 1 | -1 = -1;
}
export class NameBody {
  @IsString() @MaxLength(300) name = '';
}
export class SavePartBody extends NameBody {
  @IsIn(KEPT_KINDS as readonly string[] as string[], { message: `must be one of ${KEPT_KINDS.join(', ')}` })
  kind: KeptKind = 'surroundings';
  @Allow() brief: unknown;
}
export class SaveViewpointBody extends NameBody {
  @Allow() viewpoint: unknown;
}

export class RequestProofBody {
  @IsOptional() patch: unknown = null;
  /** Something less that was measured, to be tried. */
  @IsOptional() saving: unknown = null;
  /** A proof whose film is to be finished as the picture is by now. */
  @IsOptional() @IsString() @MaxLength(80) of: string | null = null;
}
export class StopProofBody {
  @IsIn(['stop', 'continue'], { message: 'must be stop or continue' }) how: 'stop' | 'continue' = 'stop';
}
export class RemovalBody {
  @IsIn(REMOVABLE_KINDS as readonly string[] as string[], { message: `must be one of ${REMOVABLE_KINDS.join(', ')}` })
  kind: RemovableKind = 'proof';
  @IsString() @MaxLength(80) id = '';
}
export class RenameBody extends RemovalBody {
  @IsString() @MaxLength(300) name = '';
}
