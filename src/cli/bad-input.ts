import { Refusal } from '../core/result/result';

/** Something the user gave that cannot be used; the message is the one line they get. */
export class BadInput extends Refusal {
  constructor(message: string) {
    super('bad_input', message);
  }
}
