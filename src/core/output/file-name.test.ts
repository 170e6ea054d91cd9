import { describe, expect, it } from 'vitest';
import { fileName, type NamedFile, unusedName } from './file-name';

const file: NamedFile = {
  project: 'Reading room',
  picture: 'East window',
  proof: 3,
  quality: 'Study',
  width_px: 827,
  height_px: 585,
  variant: '',
  extension: 'png'
};

describe('the name of a delivered file', () => {
  it('says project, picture, proof, quality, its own pixels and what sets it apart', () => {
    expect(fileName(file)).toBe('reading-room_east-window_proof-3_study_827x585px.png');
    expect(fileName({ ...file, variant: 'transparent' })).toBe(
      'reading-room_east-window_proof-3_study_827x585px_transparent.png'
    );
  });
  it('holds nothing that a path could be made of', () => {
    expect(fileName({ ...file, project: '../../etc', picture: 'Übersicht / Süd' })).toBe(
      'etc_ubersicht-sud_proof-3_study_827x585px.png'
    );
    expect(fileName({ ...file, project: '…', picture: '\u202e/\u0000' })).toMatch(/^project_picture_/);
  });
  it('keeps letters of every script', () => {
    expect(fileName({ ...file, project: '日本', picture: 'Вид с юга' })).toBe(
      '日本_вид-с-юга_proof-3_study_827x585px.png'
    );
  });

  it('is numbered before its extension where it is taken', () => {
    expect(unusedName('a.b.png', new Set())).toBe('a.b.png');
    expect(unusedName('a.b.png', new Set(['a.b.png', 'a.b_2.png']))).toBe('a.b_3.png');
  });
});
