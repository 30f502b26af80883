/** How a layer is put on, and what of the bench it takes. */
export const METHOD_IDS = ['airbrush', 'brush', 'can', 'sponge', 'hand', 'pour'] as const;
export type MethodId = (typeof METHOD_IDS)[number];

export interface Method {
  readonly id: MethodId;
  readonly name: string;
  /** the verb at the bench: "Spray …" */
  readonly verb: string;
}

const LIST: readonly Method[] = [
  { id: 'airbrush', name: 'airbrush', verb: 'Spray' },
  { id: 'brush', name: 'brush', verb: 'Brush' },
  { id: 'can', name: 'spray can', verb: 'Spray' },
  { id: 'sponge', name: 'sponge', verb: 'Sponge' },
  { id: 'hand', name: 'by hand', verb: 'Do' },
  { id: 'pour', name: 'pour', verb: 'Pour' },
];

export const METHODS: ReadonlyMap<MethodId, Method> = new Map(LIST.map((m) => [m.id, m]));

/** The method of an id that a schema has already checked. */
export function methodOf(id: MethodId): Method {
  return METHODS.get(id)!;
}
