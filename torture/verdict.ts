/** What came of a torture: what broke, and what was done, in words. */
export interface Verdict {
  readonly faults: readonly string[];
  readonly told: string;
}
