/** How much of its zone a layer covers, and where: each layer less than the one beneath it (common practice). */
export const REACHES = ['all', 'most', 'half', 'edges', 'recesses', 'traces'] as const;
export type Reach = (typeof REACHES)[number];

export interface ReachFacts {
  readonly name: string;
  /** of the zone's surface; drives millilitres */
  readonly share: number;
  /** of each kind of surface that a zone has */
  readonly recess: number;
  readonly face: number;
  readonly edge: number;
}

/** Shares from memory. */
export const REACH: Readonly<Record<Reach, ReachFacts>> = {
  all: { name: 'all of it', share: 1, recess: 1, face: 1, edge: 1 },
  most: { name: 'most, not the recesses', share: 0.8, recess: 0.15, face: 0.9, edge: 1 },
  half: { name: 'half, from above or below', share: 0.5, recess: 0.15, face: 0.5, edge: 0.7 },
  edges: { name: 'edges and raised parts', share: 0.15, recess: 0, face: 0.05, edge: 0.85 },
  recesses: { name: 'lines and recesses', share: 0.2, recess: 0.95, face: 0.03, edge: 0 },
  traces: { name: 'traces, marks here and there', share: 0.08, recess: 0.04, face: 0.08, edge: 0.16 },
};
