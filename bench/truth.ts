/** Simulated benches against which the odds are held. */
import { seededRandom } from '#core/kernel';
import { Luck, type Course, type Risks, type Twist } from '#core/odds';

/**
 * A bench whose truth is of another make than what is reckoned with: makes of paint of which one in five differs by half, evenings that are
 * lost in rows, hands that are slow at first, mishaps by a rate of its own. It is known to nobody beforehand.
 */
export class Truth extends Luck {
  private readonly own: Random;
  private readonly lostShare: number;
  private readonly mishapRate: number;
  private readonly makes: number[];
  private readonly hands: number[];
  /** how many times longer the first piece of all takes */
  private readonly slowness: number;
  private firsts = new Set<number>();
  /** minutes that each operation took in the future played last */
  readonly took: Float64Array;

  constructor(course: Course, risks: Risks, bench: number, lostShare: number) {
    super(course, risks, bench);
    this.took = new Float64Array(course.ids.length);
    this.own = seededRandom(70_000 + bench);
    this.lostShare = lostShare;
    this.mishapRate = Math.exp(0.5 * gauss(this.own) - 0.125);
    this.makes = risks.products.map(() => {
      const differs = this.own() < 0.2;
      return differs ? (this.own() < 0.5 ? 0.45 : -0.45) : 0.18 * gauss(this.own);
    });
    this.slowness = 1 + 0.8 * this.own();
    const pace = 0.19 * gauss(this.own);
    this.hands = risks.works.map(() => pace + 0.25 * gauss(this.own));
  }

  override draw(future: number, now: number, twist: Twist): void {
    super.draw(future, now, twist);
    const random = seededRandom(1 + future);
    // Its own pace is in its hands.
    this.pace = 0;
    this.makes.forEach((m, k) => (this.products[k] = m));
    this.hands.forEach((h, k) => (this.works[k] = h));
    this.firsts = new Set();
    // Some singly, the others three in a row: a cold, or work.
    const alone = 0.6 * this.lostShare;
    const spell = (0.4 * this.lostShare) / 3;
    let ill = 0;
    this.lost = 0;
    for (let k = 0; k < this.isLost.length; k++) {
      const [from, to] = [this.course.sessions[2 * k]!, this.course.sessions[2 * k + 1]!];
      ill = ill > 0 ? ill - 1 : random() < spell ? 3 : 0;
      const isLost: boolean = to > now && (ill > 0 || random() < alone);
      const share = random() < 0.1 ? 0.1 + 0.5 * random() : 0;
      this.isLost[k] = isLost ? 1 : 0;
      this.until[k] = Math.round(to - share * (to - from));
    }
  }

  override minutes(i: number, at: number): number {
    const work = this.risks.work[i]!;
    const usual = super.minutes(i, at);
    if (work < 0) return usual;
    // Slow with the first piece of all, a little quicker ever after.
    const isFirst = !this.firsts.has(work);
    this.firsts.add(work);
    this.took[i] = Math.max(1, Math.round(usual * (isFirst ? this.slowness : 0.99)));
    return this.took[i]!;
  }

  workOf(i: number): number {
    return this.risks.work[i]!;
  }

  productOf(i: number): number {
    return this.risks.product[i]!;
  }

  /** It is the first piece here, not the first evening. */
  protected override isFirstTime(): boolean {
    return false;
  }

  /** Its hands are a hundredth quicker with every piece but the first, whatever the evening. */
  protected override practice(): number {
    return 0;
  }

  override isMended(i: number): boolean {
    const chance = Math.min(0.6, this.risks.mendChance[i]! * this.mishapRate);
    return seededRandom(this.future * 8191 + i)() < chance;
  }
}

type Random = () => number;
const gauss = (random: Random): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
