/** What a check has found: which rule, where, what is wrong, what to do. */
import type { Recipe } from '#core/muster';

export interface Place {
  readonly view: 'muster' | 'recipes' | 'bench' | 'stores';
  readonly unit?: string;
  readonly piece?: string;
  readonly recipe?: string;
  readonly layer?: string;
  readonly zone?: string;
}

/** A cure that is mechanical: one click edits the recipe. */
export interface Fix {
  readonly label: string;
  /** hands-on minutes a piece that it adds (negative: saves) */
  readonly addsMinutes: number;
  /** drying minutes that it adds */
  readonly addsDryMinutes: number;
  readonly apply: (recipe: Recipe) => Recipe;
}

export interface Finding {
  readonly rule: string;
  /** an error of the muster itself (not of the craft) keeps the plan from being made */
  readonly severity: 'error' | 'warning' | 'advice';
  /** a rule of the craft: told, but the plan is made all the same */
  readonly isCraft?: boolean;
  readonly place: Place;
  /** the place in words */
  readonly where: string;
  /** what is wrong, and what happens if it is left so */
  readonly text: string;
  readonly cure: string;
  readonly fix?: Fix;
}
