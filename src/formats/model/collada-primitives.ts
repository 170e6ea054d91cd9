/**
 * Polygons, strips and fans of COLLADA as the lists of polygons and triangles that the reader takes (COLLADA 1.5, 5.8).
 * Holes of polygons are filled.
 */
const PRIMITIVE = /<(polygons|tristrips|trifans)\b([^>]*)>([\s\S]*?)<\/\1\s*>/g;

/** `holes`: how many polygons had some. */
export function plainPrimitives(text: string): { text: string; holes: number } {
  let holes = 0;
  const plain = text.replace(PRIMITIVE, (_, kind: string, attributes: string, inner: string) => {
    const inputs = inner.match(/<input\b[^>]*\/>|<input\b[^>]*>\s*<\/input\s*>/g) ?? [];
    const stride = 1 + Math.max(0, ...inputs.map((input) => Number(/\boffset\s*=\s*["'](\d+)/.exec(input)?.[1] ?? 0)));
    holes += inner.match(/<h\b/g)?.length ?? 0;
    const rows = [...inner.matchAll(/<p\b[^>]*>([^<]*)<\/p\s*>/g)].map(([, numbers]) => corners(numbers!, stride));
    const rest = attributes.replace(/\bcount\s*=\s*["'][^"']*["']/, '');
    const list = (name: string, polygons: string[][], counts: string) =>
      `<${name} ${rest} count="${polygons.length}">${inputs.join('')}${counts}<p>${polygons.flat().join(' ')}</p></${name}>`;
    if (kind === 'polygons')
      return list('polylist', rows, `<vcount>${rows.map((row) => row.length).join(' ')}</vcount>`);
    return list('triangles', rows.flatMap(kind === 'trifans' ? fan : strip), '');
  });
  return { text: plain, holes };
}

/** The numbers of each corner, as text. */
function corners(numbers: string, stride: number): string[] {
  const all = numbers.match(/\S+/g) ?? [];
  return Array.from({ length: Math.floor(all.length / stride) }, (_, i) =>
    all.slice(i * stride, (i + 1) * stride).join(' ')
  );
}

const strip = (row: string[]): string[][] =>
  row.slice(2).map((c, i) => (i % 2 === 0 ? [row[i]!, row[i + 1]!, c] : [row[i + 1]!, row[i]!, c]));
const fan = (row: string[]): string[][] => row.slice(2).map((c, i) => [row[0]!, row[i + 1]!, c]);
