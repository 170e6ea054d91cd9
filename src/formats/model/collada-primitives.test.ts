import { describe, expect, it } from 'vitest';
import { plainPrimitives } from './collada-primitives';

const INPUT = '<input semantic="VERTEX" source="#v" offset="0"/><input semantic="NORMAL" source="#n" offset="1"/>';

describe('primitives of COLLADA', () => {
  it('polygons become one list with the corners of each', () => {
    const { text } = plainPrimitives(
      `<mesh><polygons material="a" count="2">${INPUT}<p>0 0 1 1 2 2 3 3</p><p>0 0 1 1 2 2</p></polygons></mesh>`
    );
    expect(text).toContain('<polylist  material="a"  count="2">');
    expect(text).toContain('<vcount>4 3</vcount><p>0 0 1 1 2 2 3 3 0 0 1 1 2 2</p>');
  });
  it('strips and fans become triangles that face one way', () => {
    const strips = plainPrimitives(`<tristrips count="1">${INPUT}<p>0 0 1 1 2 2 3 3</p></tristrips>`).text;
    expect(strips).toMatch(/<triangles\s+count="2">.*<p>0 0 1 1 2 2 2 2 1 1 3 3<\/p><\/triangles>/);
    const fans = plainPrimitives(`<trifans count="1">${INPUT}<p>0 0 1 1 2 2 3 3</p></trifans>`).text;
    expect(fans).toContain('<p>0 0 1 1 2 2 0 0 2 2 3 3</p>');
  });
  it('counts holes and leaves all else as it is', () => {
    expect(
      plainPrimitives(`<polygons count="1">${INPUT}<ph><p>0 0 1 1 2 2</p><h>3 3 4 4 5 5</h></ph></polygons>`).holes
    ).toBe(1);
    const other = '<triangles count="1"><p>0 1 2</p></triangles>';
    expect(plainPrimitives(other)).toEqual({ text: other, holes: 0 });
  });
});
