import type { ReactElement } from 'react';
import { STORAGE_SENTENCES, storageTroubleOf } from '../core/result/storage-trouble';
import { Mark } from '../ui/mark';

/** A page made of what the database holds; says so when that cannot be read now. */
export function storedPage<T>(read: () => T, page: (value: T) => ReactElement): ReactElement {
  try {
    return page(read());
  } catch (error) {
    const trouble = storageTroubleOf(error);
    if (!trouble) throw error;
    const sentence = STORAGE_SENTENCES[trouble];
    return (
      <main className="plain">
        <Mark client="" />
        <p className="say">{`${sentence[0]!.toUpperCase()}${sentence.slice(1)}.`}</p>
        <meta httpEquiv="refresh" content="5" />
        <p className="note">This page looks again every five seconds.</p>
      </main>
    );
  }
}
