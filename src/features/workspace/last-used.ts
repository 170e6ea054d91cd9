/** Which materials of the library this browser used last, newest first. */
const STORED = 'sphaera.materials-used';
const MOST = 12;

export function lastUsed(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(STORED) ?? '[]');
    return Array.isArray(kept) ? kept.filter((key) => typeof key === 'string') : [];
  } catch {
    return [];
  }
}

export function noteUsed(key: string): void {
  try {
    localStorage.setItem(STORED, JSON.stringify([key, ...lastUsed().filter((k) => k !== key)].slice(0, MOST)));
  } catch {
    // without storage nothing is remembered
  }
}
