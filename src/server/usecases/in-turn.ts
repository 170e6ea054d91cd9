/** Measurements and looks one after the other: beside each other all would be slower and none true. */
let last: Promise<unknown> = Promise.resolve();

export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const turn = last.then(work);
  last = turn.catch(() => {});
  return turn;
}
