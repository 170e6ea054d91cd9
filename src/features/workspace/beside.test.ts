import { describe, expect, it } from 'vitest';
import type { PictureItemDto, ProofDto } from '../../contracts/dto';
import { besides } from './beside';

const picture = (id: string, lead: PictureItemDto['lead']) =>
  ({ id, name: `Picture ${id}`, lead, changes: 7 }) as PictureItemDto;
const proof = (id: string, number: number, more: Partial<ProofDto> = {}) =>
  ({ id, number, picture_count: 3, brief: { patch: null }, ...more }) as ProofDto;

describe('what can be shown beside the stage', () => {
  const pictures = [
    picture('a', { proof: 'p9', count: 2, revision: 1 }),
    picture('b', null),
    picture('c', { proof: 'p7', count: 5, revision: 1 })
  ];
  it('is each other picture, by its newest proof or a small picture of itself', () => {
    const all = besides({ pictures }, 'a', [], null);
    expect(all.map(({ key, name }) => [key, name])).toEqual([
      ['picture b', 'Picture b'],
      ['picture c', 'Picture c']
    ]);
    expect(all[0]!.src).toBe('/api/pictures/b/thumbnail?state=7');
    expect(all[1]!.src).toContain('/p7/');
  });
  it('and each other proof of this one that is seen whole', () => {
    const patch = { patch: { x: 0, y: 0, width: 1, height: 1 } } as unknown as ProofDto['brief'];
    const proofs = [
      proof('p1', 1),
      proof('p2', 2),
      proof('p3', 3, { picture_count: 0 }),
      proof('p4', 4, { brief: patch })
    ];
    const keys = besides({ pictures: [pictures[0]!] }, 'a', proofs, 'p2').map(({ key }) => key);
    expect(keys).toEqual(['proof p1']);
  });
});
