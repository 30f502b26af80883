/** Where practitioners disagree (common practice, no source): a choice on each recipe, with a default and its reason. */
import { isFor, isSolvent, isMedium } from './kinds';
import type { Recipe } from '#core/muster';

export interface School {
  readonly id: string;
  readonly name: string;
  /** why one would choose it */
  readonly reason: string;
}

export interface Question {
  readonly id: string;
  readonly name: string;
  /** the first is the default */
  readonly schools: readonly [School, ...School[]];
}

const school = (id: string, name: string, reason: string): School => ({ id, name, reason });

export const QUESTIONS: readonly Question[] = [
  {
    id: 'solvent',
    name: 'Solvent over bare acrylic',
    schools: [
      school('strict', 'never without a seal', 'a seal costs a coat; a dissolved base costs the model'),
      school(
        'trusting',
        'thin, over well-dried airbrushed acrylic',
        'often does no harm, and saves a coat and a night',
      ),
    ],
  },
  {
    id: 'topcoat',
    name: 'Topcoat over chipping medium',
    schools: [
      school(
        'hour',
        'once touch-dry, within about the hour',
        'the only school with a closing time, so the safe one to schedule',
      ),
      school('dry', 'only when thoroughly dry', 'no closing time, but a day is gone'),
      school('wet', 'almost at once, over several very light coats', 'quick; lifts in large flakes'),
    ],
  },
  {
    id: 'sandwich',
    name: 'What makes the sandwich',
    schools: [
      school('medium', 'ready-made medium', 'even, and its times are known'),
      school('spray', 'decanted hairspray', 'cheap and random; gas and flame hazard while it degasses'),
      school('crackle', 'unsealed crackle', 'large plates that come off'),
      school(
        'salt',
        'salt, rinsed off',
        'no medium and no window: coarse grain; it dries to the last drop, twice',
      ),
    ],
  },
  {
    id: 'under-medium',
    name: 'Under the medium',
    schools: [
      school(
        'sealed',
        'sealed, or solvent-fast',
        'lifting stops at the seal; needed over washes and airbrushed metal',
      ),
      school('bare', 'dry acrylic or plain primer', 'saves a coat; hard rubbing may go through'),
    ],
  },
  {
    id: 'chips',
    name: 'Chips',
    schools: [
      school(
        'mix',
        'medium first, then corrected by hand',
        'random where it should be, controlled where it matters',
      ),
      school('medium', 'medium only', 'random, natural'),
      school('sponge', 'sponge', 'quick; turn it at each dab'),
      school('brush', 'brush', 'full control, slow'),
    ],
  },
  {
    id: 'chips-and-wash',
    name: 'Chips and wash',
    schools: [
      school('chips-first', 'chips first', 'the wash blends them'),
      school('chips-after', 'chips after', 'crisp, on matt'),
    ],
  },
  {
    id: 'decals',
    name: 'Decals',
    schools: [
      school('gloss', 'on gloss', 'no silvering'),
      school(
        'matt',
        'on matt, with setting and softening solution',
        'saves a coat; the solutions do the work',
      ),
      school('freehand', 'freehand or masks', 'no film at all'),
    ],
  },
  {
    id: 'wash-surface',
    name: 'Surface under an enamel or oil wash',
    schools: [
      school('satin', 'satin', 'holds the wash at raised corners: right for weathered subjects'),
      school('gloss', 'gloss', 'runs and wipes best'),
      school('matt', 'matt', 'stains: dirt'),
    ],
  },
  {
    id: 'washes',
    name: 'Washes',
    schools: [
      school('either', 'by time to the table date', 'acrylic is quick, enamel forgiving'),
      school('acrylic', 'acrylic', 'quick, no smell, additive'),
      school('enamel', 'enamel or oil', 'forgiving, subtractive, slow'),
    ],
  },
  {
    id: 'powders',
    name: 'Sealing powders',
    schools: [
      school('always', 'always', 'handled models lose them otherwise'),
      school('never', 'never', 'varnish dulls them'),
    ],
  },
  {
    id: 'aids',
    name: 'Drying aids',
    schools: [
      school('cool', 'cool moving air', 'quicker, and safe on chipping media'),
      school('cabinet', 'drying cabinet where the layer allows', 'quickest; never on chipping media'),
      school('patience', 'nothing but patience', 'nothing can go wrong'),
    ],
  },
  {
    id: 'metals',
    name: 'Metals',
    schools: [
      school('brushed', 'dry-brushed', 'texture'),
      school('sprayed', 'airbrushed', 'smooth'),
      school('bare', 'left unvarnished', 'shines'),
    ],
  },
  {
    id: 'realism',
    name: 'Realism',
    schools: [
      school('life', 'what rusts, leaks and chips in life', 'true close up'),
      school('table', 'contrast raised', 'reads at arm’s length on the table'),
    ],
  },
  {
    id: 'markings',
    name: 'Markings and chips',
    schools: [
      school('markings-first', 'markings first', 'chips go through both'),
      school('chips-first', 'chips first', 'markings distressed to match'),
    ],
  },
];

/** The school a recipe follows in a question. */
export function schoolOf(recipe: Recipe, question: string): string {
  const q = QUESTIONS.find((x) => x.id === question);
  const chosen = recipe.schools?.[question];
  return q?.schools.find((s) => s.id === chosen)?.id ?? q?.schools[0].id ?? '';
}

/** Drying minutes of a window after chipping medium by school of the topcoat (common practice, no source). */
const TOPCOAT_WINDOWS: Readonly<Record<string, { opens: number; closes: number | null }>> = {
  hour: { opens: 20, closes: 60 },
  dry: { opens: 720, closes: null },
  wet: { opens: 5, closes: 30 },
};

/** Chooses a school, and sets what follows from it: windows over the chipping medium, aids, washes' substitutes. */
export function withSchool(recipe: Recipe, question: string, school: string): Recipe {
  const chosen: Recipe = { ...recipe, schools: { ...recipe.schools, [question]: school } };
  switch (question) {
    case 'topcoat': {
      const w = TOPCOAT_WINDOWS[school];
      if (!w) return chosen;
      return {
        ...chosen,
        layers: chosen.layers.map((l) =>
          isMedium(l)
            ? {
                ...l,
                dryMinutes: Math.min(l.dryMinutes, w.opens),
                window: {
                  opensMinutes: w.opens,
                  closesMinutes: w.closes,
                  preferMinutes: null,
                  through: l.window?.through ?? null,
                },
              }
            : l,
        ),
      };
    }
    case 'aids': {
      const aid = school === 'cool' ? 'moving-air' : school === 'cabinet' ? 'cabinet' : 'none';
      return {
        ...chosen,
        layers: chosen.layers.map((l) =>
          isFor('release', 'work', 'mark')(l) ? l : isSolvent(l) ? { ...l, aid: 'none' } : { ...l, aid },
        ),
      };
    }
    case 'washes':
      return {
        ...chosen,
        layers: chosen.layers.map((l) =>
          l.substitute && isSolvent(l) ? { ...l, usesSubstitute: school === 'acrylic' } : l,
        ),
      };
    default:
      return chosen;
  }
}
