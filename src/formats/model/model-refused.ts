import { Refusal } from '../../core/result/result';

/** A model file that cannot be used. The message says what is so and what to do; the code is stable. */
export type ModelRefusal =
  | 'not_a_model'
  | 'truncated'
  | 'too_large'
  | 'zip_bomb'
  | 'external_file'
  | 'missing_file'
  | 'no_surface'
  | 'bad_numbers'
  | 'bad_solid_texture'
  | 'absurd_size'
  | 'unsupported'
  | 'timeout'
  | 'memory';

export class ModelRefused extends Refusal {
  declare readonly code: ModelRefusal;

  constructor(code: ModelRefusal, message: string) {
    super(code, message);
  }
}
