/** Something the user gave that cannot be used; the message is the one line they get. */
export class BadInput extends Error {}
