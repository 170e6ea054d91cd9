import { Refusal } from '../../core/result/result';

/** A file that is no picture that can be read; the message goes on after the file's name. */
export class ImageRefused extends Refusal {
  constructor(message: string) {
    super('refused', message);
  }
}
