/** The documentation of fields, as Markdown, from their definitions. */
import { assertNever } from '../../result/assert-never';
import { canonicalJson } from '../canonical-json';
import { defaultOf, type Decides, type Field, type ObjectField } from './field';

interface Row {
  path: string;
  type: string;
  initial: string;
  doc: string;
  decides: Decides;
}
const DECIDES: Record<Decides, string> = { film: 'film', finish: 'finish', neither: '' };

/** A section a field of the object, each a table of all that lies in it. */
export function documentFields(root: ObjectField): string {
  return Object.entries(root.fields)
    .filter(([key]) => key !== 'version')
    .map(([key, field]) => section(key, field, root.decides ?? 'film'))
    .join('\n\n');
}

function section(key: string, field: Field, around: Decides): string {
  const rows = rowsOf(key, field, around);
  const lines = rows.map((r) => `| ${[r.path, r.type, r.initial, DECIDES[r.decides], r.doc].map(cell).join(' | ')} |`);
  return [
    `## ${key}`,
    '',
    field.doc,
    '',
    '| field | value | default | decides | what it is |',
    '| --- | --- | --- | --- | --- |',
    ...lines
  ].join('\n');
}
const cell = (text: string) => text.replaceAll('|', '\\|');

/** `path`: within its section; a list's items are at `path[]`. */
function rowsOf(path: string, field: Field, around: Decides, nullable = false): Row[] {
  const decides = field.decides ?? around;
  const row = (type: string, initial: unknown): Row => ({
    path: `\`${path}\``,
    type: nullable ? `${type}, or null` : type,
    initial: `\`${canonicalJson(nullable ? null : initial)}\``,
    doc: field.doc,
    decides
  });
  const children = (object: ObjectField, prefix: string) =>
    Object.entries(object.fields).flatMap(([key, child]) => rowsOf(`${prefix}.${key}`, child, decides));
  switch (field.type) {
    case 'number': {
      const range = `${figure(field.min)} to ${figure(field.max)}${field.unit ? ` ${field.unit}` : ''}`;
      return [row(field.whole ? `whole number, ${range}` : range, field.default)];
    }
    case 'flag':
      return [row('true or false', field.default)];
    case 'text':
      return [row('text', field.default)];
    case 'choice':
      return [row(field.values.join(', '), field.default)];
    case 'vector':
      return [row('three numbers', field.default)];
    case 'nullable':
      return rowsOf(path, field.of, decides, true);
    case 'list': {
      const items = field.of.type === 'object' ? children(field.of, `${path}[]`) : [];
      return [row(`list of at most ${field.maxItems}`, []), ...items];
    }
    case 'object':
      return [...(nullable ? [row('object', null)] : []), ...children(field, path)];
    case 'union': {
      const variants = Object.entries(field.variants);
      const initial = field.choose ? defaultOf(field) : { kind: field.initial };
      const type = field.choose
        ? variants.map(([, v]) => v.label.toLowerCase()).join('; ')
        : `kind: ${variants.map(([k]) => k).join(', ')}`;
      return [
        row(type, initial),
        ...variants.flatMap(([key, variant]) => {
          const own = children(variant, path);
          const name = field.choose ? variant.label.toLowerCase() : key;
          return own.map((r, i) =>
            i === 0 ? { ...r, doc: `${variantWord(name, variant)} ${r.doc}` } : { ...r, doc: `(${name}) ${r.doc}` }
          );
        })
      ];
    }
    default:
      return assertNever(field, 'field');
  }
}
const variantWord = (name: string, variant: ObjectField) => `**${name}**: ${variant.doc}`;
const figure = (value: number) =>
  (Math.abs(value) >= 1e6 ? value.toExponential() : value.toLocaleString('en')).replace('e+', 'e');

/** The whole default as JSON. */
export const exampleOf = (root: ObjectField): string => JSON.stringify(defaultOf(root), null, 2);
