/** Which pieces have an effect stronger or weaker than their recipe, in words. */
import type { Piece } from '#core/muster';
import { strengthOn } from '#core/recipe';

const WORDS = { heavy: 'heavy on', trace: 'a trace on' } as const;

/** “heavy on Ferry 3, 7; a trace on Ferry 1”: pieces of one name by their numbers, in order; empty: all as in the recipe. */
export function strengthWords(of: readonly { readonly piece: Piece; readonly layer: string }[]): string {
  return (['heavy', 'trace'] as const)
    .flatMap((is) => {
      const names = of.filter(({ piece, layer }) => strengthOn(piece, layer) === is).map((s) => s.piece.name);
      return names.length > 0 ? [`${WORDS[is]} ${numbered([...new Set(names)])}`] : [];
    })
    .join('; ');
}

function numbered(names: readonly string[]): string {
  const stems = new Map<string, string[]>();
  for (const name of names) {
    const [, stem = name, number = ''] = /^(.*\S)\s+(\d+)$/.exec(name) ?? [];
    stems.set(stem, [...(stems.get(stem) ?? []), number]);
  }
  return [...stems]
    .map(([stem, numbers]) => `${stem} ${numbers.sort((a, b) => Number(a) - Number(b)).join(', ')}`.trim())
    .join(', ');
}
