import type { ImportReport } from '../../src/formats/model/import-report';

/** Triangles without an area, or on another, that an import took out. */
export const takenOut = ({ health = [] }: Pick<ImportReport, 'health'>): number =>
  health
    .filter(({ kind, repaired }) => repaired && (kind === 'flat' || kind === 'doubled'))
    .reduce((sum, { count }) => sum + count, 0);
