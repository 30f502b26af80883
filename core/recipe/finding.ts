/** What a check has found: which rule, where, what is wrong, what to do. */
export interface Place {
  readonly view: 'muster' | 'recipes' | 'bench';
  readonly unit?: string;
  readonly piece?: string;
  readonly recipe?: string;
  readonly layer?: string;
}

export interface Finding {
  readonly rule: string;
  /** an error keeps the plan from being made; a warning does not */
  readonly severity: 'error' | 'warning';
  readonly place: Place;
  /** the place in words */
  readonly where: string;
  readonly text: string;
  readonly cure: string;
}
