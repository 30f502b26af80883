/** What makes a layer dry slower or faster than one thin coat in still air. */
export const FILMS = ['thin', 'normal', 'heavy'] as const;
export type Film = (typeof FILMS)[number];

export const AIDS = ['none', 'moving-air', 'cabinet', 'heat'] as const;
export type Aid = (typeof AIDS)[number];

/** Wet film against a normal coat. From memory: airbrushed passes are half a brushed coat, a flooded one twice. */
export const THICKNESS: Readonly<Record<Film, number>> = { thin: 0.6, normal: 1, heavy: 2 };

/**
 * Drying grows with the film to this power: 1 where evaporation rules, 2 where water has to find its way through the film
 * (diffusion); between them for paint. "More than linearly" is common practice, the figure is from memory.
 */
const FILM_POWER = 1.5;

/** How much faster drying goes with an aid; from memory, for waterborne films. */
const FASTER: Readonly<Record<Aid, number>> = { none: 1, 'moving-air': 1.5, cabinet: 2.5, heat: 3 };

/** Factor on the drying minutes of one normal coat in still air. */
export function filmFactor(film: Film, aid: Aid): number {
  return THICKNESS[film] ** FILM_POWER / FASTER[aid];
}
