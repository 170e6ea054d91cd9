import { text } from './field';

/** A colour in sRGB by six digits: "#7a8b9c". */
export const colorText = (label: string, doc: string, initial: string) =>
  text({
    label,
    doc,
    default: initial,
    maxLength: 7,
    pattern: /^#[0-9a-f]{6}$/i,
    must: 'must be a colour like #7a8b9c'
  });
