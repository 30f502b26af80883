/** Where answers are put by; apart from what reads them, so that the first view stays light. */
export const PUT_BY = 'beginning';

export function isPutBy(): boolean {
  try {
    return sessionStorage.getItem(PUT_BY) !== null;
  } catch {
    return false;
  }
}

export function forget(): void {
  try {
    sessionStorage.removeItem(PUT_BY);
  } catch {
    // Nothing was put by.
  }
}
