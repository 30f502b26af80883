/** What chance gives one future, drawn before it is played. */
import { Air } from './air';
import type { Course } from './course';
import { normal, STREAM, uniform } from './draws';
import type { Risks, Twist } from './risks';

const DAY = 1440;
/** An evening cut short loses so much of itself. */
const CUT = 1 / 3;

export class Luck {
  /** of each product and kind of work: the logarithm of its factor */
  readonly products: Float64Array;
  readonly works: Float64Array;
  readonly air: Air;
  /** by session: nobody comes; and until when one stays */
  readonly isLost: Uint8Array;
  readonly until: Float64Array;
  /** by resource: the hours of a helper who stays away; null: no helper */
  readonly away: readonly (Uint8Array | null)[];
  /** by resource: who takes over; −1: nobody */
  readonly instead: Int32Array;
  /** what each millilitre reckoned turns out to be */
  readonly usage: Float64Array;
  /** by kind of work: the day on which it was done first; −1: not yet */
  private readonly firstDay: Int32Array;
  /** by kind of work: the day on which it was done last, and how many pieces that day */
  private readonly lastDay: Int32Array;
  private readonly inRow: Int32Array;
  /** by kind of mishap: how many times as often as beforehand */
  private readonly mishaps: Float64Array;
  /** of all hands: the logarithm of their factor */
  pace = 0;
  /** how many times longer a first evening takes */
  private firstTime = 1;
  lost = 0;
  absent = 0;
  protected future = 0;

  constructor(
    protected readonly course: Course,
    protected readonly risks: Risks,
    protected readonly seed: number,
  ) {
    const sessions = course.sessions.length / 2;
    this.products = new Float64Array(risks.products.length);
    this.works = new Float64Array(risks.works.length);
    this.isLost = new Uint8Array(sessions);
    this.until = new Float64Array(sessions);
    this.usage = new Float64Array(risks.supplies.length);
    this.mishaps = new Float64Array(risks.mishaps.length);
    this.firstDay = new Int32Array(risks.works.length).fill(-1);
    this.lastDay = new Int32Array(risks.works.length).fill(-1);
    this.inRow = new Int32Array(risks.works.length);
    const helpers = new Map(risks.helpers.map((h) => [h.hands, h]));
    this.away = course.open.map((open, r) =>
      open && helpers.has(r) ? new Uint8Array(open.length / 2) : null,
    );
    this.instead = Int32Array.from(course.open, (_, r) => helpers.get(r)?.instead ?? -1);
    // No spread: a plan may have more operations than a call may have arguments.
    const last = Math.max(
      course.sessions.at(-1) ?? 0,
      course.end.reduce((a, b) => Math.max(a, b), 0),
    );
    this.air = new Air(course.clocks, Math.ceil(last / DAY) + 1);
  }

  /** @param now minute from which on anything is open */
  draw(future: number, now: number, twist: Twist): void {
    const { risks, seed, course } = this;
    this.future = future;
    risks.products.forEach((p, k) => {
      this.products[k] = p.mean + p.sigma * normal(seed, future, STREAM.product, k);
    });
    this.pace = risks.pace === 0 ? 0 : risks.pace * normal(seed, future, STREAM.pace, 0);
    const { firstTime } = risks;
    this.firstTime = Math.exp(firstTime.mean + firstTime.sigma * normal(seed, future, STREAM.first, 0));
    risks.works.forEach((w, k) => {
      this.works[k] = w.mean + w.sigma * normal(seed, future, STREAM.hands, k);
    });
    risks.supplies.forEach((_, k) => {
      this.usage[k] = Math.exp(risks.usage * normal(seed, future, STREAM.usage, k));
    });
    risks.mishaps.forEach((sigma, k) => {
      // One on the mean, however wide.
      this.mishaps[k] = Math.exp(sigma * normal(seed, future, STREAM.mishaps, k) - sigma ** 2 / 2);
    });
    this.air.draw(seed, future, risks.air, now);
    this.lost = 0;
    this.firstDay.fill(-1);
    this.lastDay.fill(-1);
    const { after, else: other } = lostChances(risks);
    let wasLost = false;
    for (let k = 0; k < this.isLost.length; k++) {
      const from = course.sessions[2 * k]!;
      const to = course.sessions[2 * k + 1]!;
      const isPast = to <= now;
      const chance: number = wasLost ? after : other;
      const isLost: boolean = !isPast && (k === twist.lost || uniform(seed, future, STREAM.lost, k) < chance);
      wasLost = isLost;
      const isCut = !isPast && !isLost && uniform(seed, future, STREAM.cut, k) < risks.cut;
      this.isLost[k] = isLost ? 1 : 0;
      this.until[k] = isCut ? Math.round(to - (to - from) * CUT) : to;
      if (isLost || isCut) this.lost++;
    }
    this.absent = 0;
    for (const { hands, absent } of risks.helpers) {
      const away = this.away[hands];
      if (!away) continue;
      for (let k = 0; k < away.length; k++) {
        away[k] = uniform(seed, future, STREAM.absent, hands * 4096 + k) < absent ? 1 : 0;
        if (away[k] && course.open[hands]![2 * k + 1]! > now) this.absent++;
      }
    }
  }

  /** The factor on the drying of a product’s coat that was put on at this minute: of the product, and of its evening. */
  drying(product: number, minute: number): number {
    const evening = Math.floor(minute / DAY);
    const own =
      this.risks.evening === 0
        ? 0
        : this.risks.evening * normal(this.seed, this.future, STREAM.evening, product * 4096 + evening);
    return Math.exp(this.products[product]! + own);
  }

  /** Minutes of hands that an operation takes when it is begun at this minute: asked in the order in which they are begun. */
  minutes(i: number, at: number): number {
    const planned = this.course.minutes[i]!;
    const work = this.risks.work[i]!;
    if (work < 0) return planned;
    const { piece } = this.risks;
    const own =
      this.pace +
      this.works[work]! +
      this.practice(work, at) +
      (piece === 0 ? 0 : piece * normal(this.seed, this.future, STREAM.piece, i));
    const minutes = planned * Math.exp(own) * (this.isFirstTime(work, at) ? this.firstTime : 1);
    return minutes === planned ? planned : Math.max(1, Math.round(minutes));
  }

  /** The logarithm of what a piece takes of the minutes of the evening's first. */
  protected practice(work: number, at: number): number {
    const slope = this.risks.slopes[work] ?? 0;
    if (slope === 0) return 0;
    const day = Math.floor(at / DAY);
    this.inRow[work] = this.lastDay[work] === day ? this.inRow[work]! + 1 : 1;
    this.lastDay[work] = day;
    return slope * Math.log(this.inRow[work]!);
  }

  /** Is it the first evening on which this bench does such work? */
  protected isFirstTime(work: number, at: number): boolean {
    if (!this.risks.isNew[work]) return false;
    const day = Math.floor(at / DAY);
    if (this.firstDay[work] === -1) this.firstDay[work] = day;
    return this.firstDay[work] === day;
  }

  /** Has it to be mended? */
  isMended(i: number): boolean {
    const kind = this.risks.mishap[i]!;
    const chance = this.risks.mendChance[i]! * (kind < 0 ? 1 : this.mishaps[kind]!);
    return chance > 0 && uniform(this.seed, this.future, STREAM.rework, i) < chance;
  }
}

/** How likely an evening is lost after a lost one, and after any other, so that in the long run the share is as said. */
function lostChances({ lost, inRows }: Risks): { after: number; else: number } {
  const after = lost === 0 ? 0 : Math.max(lost, inRows);
  return { after, else: lost >= 1 ? 1 : (lost * (1 - after)) / (1 - lost) };
}
