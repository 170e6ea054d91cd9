/** An expected refusal: the input cannot be met, `message` says what and what to do, `field` where. */
export class BriefRefused extends Error {
  constructor(
    readonly field: string,
    message: string
  ) {
    super(message);
  }
}
