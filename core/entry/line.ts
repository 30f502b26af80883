/** A line that makes many: "3 trays of 8 dockhands, quick tray, by 14 March". */
import { NAME_LETTERS, SIZE_CLASSES, type LocalDate, type SizeClass } from '#core/muster';
import { readDate } from './dates';
import type { Named, PieceDraft, UnitDraft } from './draft';
import { matchRecipe } from './match';

/** What is known while a line is read. */
export interface Known {
  readonly recipes: readonly Named[];
  readonly today: LocalDate;
  readonly monthFirst?: boolean;
}

/** A line as it was understood. */
export interface Understood {
  readonly draft: UnitDraft;
  /** what it does not say and must be chosen */
  readonly missing: readonly ('name' | 'recipe' | 'date')[];
  /** parts of it that mean nothing here, as they were typed */
  readonly unclear: readonly string[];
  /** why it can't be made as it stands; null where it can */
  readonly fault: string | null;
}

/** As many pieces and figures as a line may make. */
export const MOST_PIECES = 500;
const MOST_FIGURES = 500;
const NUMBERS = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
const NUMBER = `(\\d+|a|an|${NUMBERS.join('|')})`;
const TRAYS = new RegExp(
  `^(?:${NUMBER}\\s+)?(trays?|boxes|box|sprues?|strips?|sets?)\\s+of\\s+${NUMBER}\\s+(.+)$`,
  'iu',
);
const MANY = new RegExp(`^${NUMBER}(?:\\s*[x×*]\\s*|\\s+)(.+)$`, 'iu');
const TIMES = /^(.+?)\s*[x×*]\s*(\d+)$/iu;
const LATE = /^(?:(.+?)\s+(?:glued\s+)?late|late\s+(.+))$/iu;
const IMPORTANCE = /^(?:importance\s*)?([1-5])\s*(?:of\s*5)$|^importance\s*([1-5])$/iu;
const SIZE_WORDS: readonly (readonly [RegExp, SizeClass])[] = SIZE_CLASSES.map(
  (size) => [new RegExp(`^(?:size\\s+)?${size}(?:\\s+(?:size|craft|figures?))?$`, 'iu'), size] as const,
);

/** Reads one line. Its parts stand between commas; the first names the unit, after a colon its parts may follow. */
export function readLine(line: string, known: Known): Understood {
  const parts = line
    .split(/[,;]/)
    .map((p) => p.trim())
    .filter((p) => p !== '');
  const [head = '', ...rest] = parts;
  const colon = head.indexOf(':');
  const title = (colon < 0 ? head : head.slice(0, colon)).trim();
  const heads = colon < 0 ? [] : [head.slice(colon + 1).trim(), ...rest].filter((p) => p !== '');
  const many = manyOf(title);
  let table: string | null = null;
  let recipe: Named | null = null;
  let size: SizeClass | undefined;
  let importance: number | undefined;
  const pieces: { name: string; isLate: boolean }[] = [];
  const unclear: string[] = [];
  for (const part of colon < 0 ? rest : heads) {
    const date: string | null = table === null ? readDate(part, known.today, known.monthFirst) : null;
    const sized = SIZE_WORDS.find(([word]) => word.test(part))?.[1];
    const matters = IMPORTANCE.exec(part);
    const late = LATE.exec(part);
    const named: Named | null = recipe === null ? matchRecipe(part, known.recipes) : null;
    if (date !== null) table = date;
    else if (sized) size = sized;
    else if (matters) importance = Number(matters[1] ?? matters[2]);
    else if (colon >= 0 && late) pieces.push({ name: late[1] ?? late[2]!, isLate: true });
    else if (named) recipe = named;
    else if (colon >= 0 && table === null && recipe === null) pieces.push({ name: part, isLate: false });
    else unclear.push(part);
  }
  const own = { recipe: recipe?.id ?? null, ...(size ? { size } : {}) };
  const draft: UnitDraft = {
    name: many.unit,
    table,
    ...(importance ? { importance } : {}),
    pieces:
      pieces.length > 0
        ? pieces.map((p) => ({
            ...own,
            name: capital(p.name),
            figures: 1,
            ...(p.isLate ? { isLate: true } : {}),
          }))
        : many.names.map((name): PieceDraft => ({ ...own, name, figures: many.figures })),
  };
  return {
    draft,
    missing: [
      ...(many.unit === '' ? (['name'] as const) : []),
      ...(recipe === null ? (['recipe'] as const) : []),
      ...(table === null ? (['date'] as const) : []),
    ],
    unclear: [...unclear, ...cutOff(many.unit), ...pieces.flatMap((p) => cutOff(p.name))],
    fault: many.fault,
  };
}

/** What of a name is more than a name holds. */
const cutOff = (name: string): string[] => (name.length > NAME_LETTERS ? [name.slice(NAME_LETTERS)] : []);

/** Every line of a text that is not empty. */
export function readLines(text: string, known: Known): Understood[] {
  return text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => readLine(line, known));
}

interface Many {
  readonly unit: string;
  readonly names: readonly string[];
  readonly figures: number;
  readonly fault: string | null;
}

function manyOf(title: string): Many {
  const trays = TRAYS.exec(title);
  if (trays) {
    const [, count, tray, figures, name] = trays;
    return numbered(capital(name!), capital(singular(tray!)), numberOf(count ?? '1'), numberOf(figures!));
  }
  const times = TIMES.exec(title);
  if (times) return numbered(capital(times[1]!), capital(singular(times[1]!)), numberOf(times[2]!), 1);
  const many = MANY.exec(title);
  if (many) return numbered(capital(many[2]!), capital(singular(many[2]!)), numberOf(many[1]!), 1);
  return {
    unit: capital(title),
    names: [capital(title)],
    figures: 1,
    fault: title === '' ? 'Says no name.' : null,
  };
}

function numbered(unit: string, each: string, count: number, figures: number): Many {
  const fault =
    count < 1 || figures < 1
      ? 'Makes none: say how many, from one on.'
      : count > MOST_PIECES
        ? `Makes ${count} pieces; one line makes ${MOST_PIECES} at the most.`
        : figures > MOST_FIGURES
          ? `Has ${figures} figures on a tray; ${MOST_FIGURES} at the most.`
          : null;
  const made = fault ? 0 : count;
  return {
    unit,
    names:
      made === 1 ? [each === unit ? unit : each] : Array.from({ length: made }, (_, k) => `${each} ${k + 1}`),
    figures,
    fault,
  };
}

function numberOf(word: string): number {
  const at = NUMBERS.indexOf(word.toLowerCase());
  return at >= 0 ? at + 1 : /^an?$/i.test(word) ? 1 : Number(word);
}

/** "Barges" → "Barge", as far as English is regular. */
function singular(name: string): string {
  if (/(ss|us|is)$/i.test(name)) return name;
  return name
    .replace(/(\w)ies$/i, '$1y')
    .replace(/(x|sh|ch|ss)es$/i, '$1')
    .replace(/([^s])s$/i, '$1');
}

function capital(name: string): string {
  return name === '' ? '' : name[0]!.toLocaleUpperCase() + name.slice(1);
}
