import { describe, expect, it } from 'vitest';
import { isWithin, nameOfPath, partPaths, WRAP_NAME } from './part-paths';

const node = (name: string, ...children: number[]) => ({ name, children });

describe('paths of parts', () => {
  it('are the names from the root down, numbered where two would be the same', () => {
    const nodes = [node('Table', 1, 2, 3), node('Leg'), node('Leg'), node('', 4), node('Screw')];
    expect([...partPaths(nodes, [0]).values()]).toEqual([
      'Table',
      'Table / Leg',
      'Table / Leg (2)',
      'Table / part',
      'Table / part / Screw'
    ]);
  });
  it('leave out a node without a name that holds all the others', () => {
    const nodes = [node(WRAP_NAME, 1), node('', 2, 3), node('Table'), node('', 4), node('Leg')];
    expect([...partPaths(nodes, [0]).values()]).toEqual(['', '', 'Table', 'part', 'part / Leg']);
  });
  it('leave out what the import puts round a model, and stop where a file turns back on itself', () => {
    const nodes = [node(WRAP_NAME, 1), node('Table', 0)];
    expect([...partPaths(nodes, [0])]).toEqual([
      [0, ''],
      [1, 'Table']
    ]);
  });
  it('know what lies within what, by whole names', () => {
    expect(isWithin('Table / Leg', 'Table')).toBe(true);
    expect(isWithin('Tablet', 'Table')).toBe(false);
    expect(isWithin('Table', '')).toBe(true);
    expect(nameOfPath('Table / Leg')).toBe('Leg');
  });
});
