/** What materials of the file become in a picture. */
import { list, object, text } from './field';

const ASSIGNED = object(
  {
    material: text({
      label: 'Material of the file',
      doc: 'Its name, in whatever letters; a * stands for any letters: "Oak*".',
      default: '',
      minLength: 1,
      maxLength: 200,
      must: 'must be the name of a material of the model'
    }),
    becomes: text({
      label: 'Becomes',
      doc: 'A material of the library by its key.',
      default: 'oak-oiled',
      minLength: 1,
      maxLength: 60,
      pattern: /^[a-z0-9-]+$/,
      must: 'must be the key of a material of the library'
    })
  },
  { label: 'Assigned material', doc: 'A rule by names; the first that speaks of a material decides.' }
);

export const MATERIALS = list(ASSIGNED, {
  label: 'Materials',
  doc: 'Materials of the file that become ones of the library. Holes and glow stay those of the file.',
  maxItems: 500,
  what: 'assigned materials',
  word: 'look'
});
