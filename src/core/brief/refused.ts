import { Refusal } from '../result/result';

/** A brief that cannot be met: `message` says what and what to do, `field` where. */
export class BriefRefused extends Refusal {
  constructor(
    readonly field: string,
    message: string
  ) {
    super('bad_brief', message);
  }
}
