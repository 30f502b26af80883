/** Hours that are open, as intervals in one flat list: from, to in turn. */

/** The session in which a minute lies; −1: none. */
export function sessionOf(sessions: Float64Array, minute: number): number {
  let low = 0;
  let high = sessions.length / 2 - 1;
  while (low <= high) {
    const mid = (low + high) >> 1;
    if (minute < sessions[2 * mid]!) high = mid - 1;
    else if (minute >= sessions[2 * mid + 1]!) low = mid + 1;
    else return mid;
  }
  return -1;
}

/** The first interval that ends after a minute. */
export function firstAfter(open: Float64Array, minute: number): number {
  let low = 0;
  let high = open.length / 2;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (open[2 * mid + 1]! > minute) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** The first moment from `t` on at which so many minutes fit into an interval; some may be cut short or lost. */
export function fits(
  open: Float64Array,
  until: Float64Array | null,
  lost: Uint8Array | null | undefined,
  t: number,
  need: number,
): number {
  for (let k = firstAfter(open, t); 2 * k < open.length; k++) {
    if (lost?.[k]) continue;
    const at = Math.max(t, open[2 * k]!);
    if (at + need <= (until ? until[k]! : open[2 * k + 1]!)) return at;
  }
  return Infinity;
}

/** When the interval shuts in which a minute lies; the minute itself where none is open. */
export function shutsAt(
  open: Float64Array,
  until: Float64Array | null,
  lost: Uint8Array | null | undefined,
  t: number,
): number {
  const k = firstAfter(open, t);
  if (2 * k >= open.length || open[2 * k]! > t || lost?.[k]) return t;
  return until ? until[k]! : open[2 * k + 1]!;
}
