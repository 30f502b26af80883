/**
 * What one tab remembers over a reload: which muster is open, where a rehearsal is, the answers of a beginning. A browser that forbids it,
 * or is full, only costs the reload; all that must last is kept by the database.
 */
const memory = (): Storage | null => {
  try {
    return globalThis.sessionStorage ?? null;
  } catch {
    return null;
  }
};

export function recall(key: string): string | null {
  return memory()?.getItem(key) ?? null;
}

export function remember(key: string, text: string): void {
  try {
    memory()?.setItem(key, text);
  } catch {
    // Full: the next reload begins without it.
  }
}

export function forget(key: string): void {
  memory()?.removeItem(key);
}
