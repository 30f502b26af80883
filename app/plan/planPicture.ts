/** The plan as a picture to hang up: one SVG of all sessions and units, drawn as the view draws them. */
import { oddsWords, type Forecast } from '#core/odds';
import { clockTime, dayName, moment, type Plan } from '#core/plan';
import { fanOf } from './fan';
import { rowsOf, type Body } from './rows';
import { timeAxis } from './timeAxis';

/** What the theme calls its colours, resolved. */
export type Palette = Readonly<
  Record<'ground' | 'board' | 'glow' | 'pleat' | 'line' | 'ink' | 'mute' | 'lamp' | 'open' | 'shut', string>
>;

export interface Picture {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

const PIXELS_PER_MINUTE = 1.15;
const NAMES = 210;
const HEAD = 92;
const MARGIN = 24;

/**
 * @param title stands above it
 * @param odds of each unit, where they are known: its spread is drawn over its row, and said in words
 * @returns an SVG document that needs nothing else
 */
export function planPicture(
  plan: Plan,
  title: string,
  colours: Palette,
  odds: Forecast['units'] = [],
): Picture {
  const axis = timeAxis(plan.sessions, PIXELS_PER_MINUTE);
  const rows = rowsOf(plan, axis, new Set());
  const oddsOf = new Map(odds.map((u) => [u.id, u]));
  const height = HEAD + rows.reduce((sum, r) => sum + r.height, 0) + MARGIN;
  const width = NAMES + axis.width + MARGIN;
  const parts: string[] = [`<rect width="${width}" height="${height}" fill="${colours.ground}"/>`];
  const text = (x: number, y: number, size: number, fill: string, words: string, weight = 400): void =>
    void parts.push(
      `<text x="${x.toFixed(1)}" y="${y}" font-size="${size}" font-weight="${weight}" fill="${fill}">${escaped(words)}</text>`,
    );
  text(MARGIN / 2, 34, 24, colours.ink, title, 700);
  for (const lamp of axis.lamps) {
    const x = NAMES + lamp.x;
    parts.push(
      `<rect x="${x}" y="52" width="${lamp.width}" height="${height - 52}" fill="${colours.glow}" fill-opacity="0.5"/>`,
      `<rect x="${x}" y="52" width="${lamp.width}" height="4" fill="${colours.lamp}"/>`,
    );
    const { start, end } = lamp.session;
    text(x + 6, 74, 15, colours.ink, dayName(plan.origin, start), 700);
    if (lamp.width > 110)
      text(x + 6, 88, 11, colours.mute, `${clockTime(plan.origin, start)}–${clockTime(plan.origin, end)}`);
  }
  for (const pleat of axis.pleats)
    parts.push(
      `<rect x="${NAMES + pleat.x}" y="52" width="${pleat.width}" height="${height - 52}" fill="${colours.pleat}"/>`,
    );
  let y = HEAD;
  for (const row of rows) {
    parts.push(`<path d="M0 ${y + row.height}H${width}" stroke="${colours.line}"/>`);
    text(12, y + 26, 17, colours.ink, shortened(row.unit.name, 24), 700);
    text(12, y + 46, 13, colours.mute, moment(plan.origin, row.unit.due));
    const told = oddsOf.get(row.unit.id);
    if (told) text(12, y + 63, 13, colours.mute, `in time: ${oddsWords(told.inTime)}`);
    parts.push(`<g transform="translate(${NAMES} ${y})">`);
    if (told) {
      const fan = fanOf(row.unit, told.readyBy, axis, plan.origin);
      parts.push(
        `<path d="${fan.inTime}" fill="${colours.open}" fill-opacity="0.45"/><path d="${fan.late}" fill="${colours.shut}" fill-opacity="0.5"/>`,
      );
    }
    for (const tile of row.tiles())
      for (const body of tile.bodies) parts.push(bodyOf(body, row.base - row.tideHeight, colours));
    const due = axis.xOf(row.unit.due);
    const flag = row.unit.lateMinutes > 0 ? colours.shut : colours.open;
    parts.push(
      `<path d="M${due} 14V${row.base + 6}" stroke="${colours.ink}" stroke-width="1.5"/><path d="M${due} 14h12l-4 5 4 5h-12z" fill="${flag}"/></g>`,
    );
    y += row.height;
  }
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Atkinson Hyperlegible Next Variable, sans-serif">${parts.join('')}</svg>`;
  return { svg, width, height };
}

function bodyOf(body: Body, top: number, colours: Palette): string {
  const paint = escaped(body.steps[0]!.layer.colour);
  const parts = [
    body.tide.line
      ? `<path d="${body.tide.wet}" fill="${paint}" fill-opacity="0.9"/><path d="${body.tide.workable}" fill="${paint}" fill-opacity="0.7"/><path d="${body.tide.nearly}" fill="${paint}" fill-opacity="0.4"/><path d="${body.tide.line}" fill="none" stroke="${colours.ink}" stroke-opacity="0.7"/>`
      : '',
    `<path d="${body.fill}" fill="${paint}" stroke="${colours.ink}" stroke-opacity="0.35"/>`,
    `<rect x="${body.x.toFixed(1)}" y="${body.base + 1}" width="${body.width.toFixed(1)}" height="4" fill="${colours.lamp}"/>`,
    body.label
      ? `<text x="${body.label.x.toFixed(1)}" y="${top - 6 - body.label.level * 15}" font-size="12.5" fill="${colours.ink}">${escaped(body.label.text)}</text>`
      : '',
  ];
  return parts.join('');
}

function shortened(words: string, most: number): string {
  return words.length > most ? `${words.slice(0, most - 1)}…` : words;
}

function escaped(words: string): string {
  return words.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}
