import type { ImportReport } from '../../src/formats/model/import-report';

/** How many triangles an import says that it took out. */
export const takenOut = ({ changed }: ImportReport): number =>
  changed.reduce((sum, text) => {
    const count = /^([\d,]+) triangles? .*taken out$/.exec(text)?.[1];
    return sum + Number((count ?? '0').replaceAll(',', ''));
  }, 0);
