import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, present } from '#core/plan';
import { smallMuster } from '../../core/plan/testing';
import { planPicture, type Palette } from './planPicture';

const colours = Object.fromEntries(
  ['ground', 'board', 'glow', 'pleat', 'line', 'ink', 'mute', 'lamp', 'open', 'shut'].map((k) => [
    k,
    '#123456',
  ]),
) as Palette;
const base = smallMuster();
const muster = { ...base, units: [{ ...base.units[0]!, name: '<Ferries> & "Co"' }] };
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 20 }));
const { svg, width, height } = planPicture(plan, 'Fair & foul', colours);

describe('the plan as a picture', () => {
  it('is one whole SVG with every session and run in it', () => {
    expect(
      svg.startsWith(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"`),
    ).toBe(true);
    expect(svg.endsWith('</svg>')).toBe(true);
    for (const name of ['prime', 'medium', 'top', 'chip', 'seal']) expect(svg).toContain(`>${name}`);
    expect(svg.split('font-weight="700"').length - 1).toBe(1 + plan.sessions.length + plan.units.length);
  });

  it('shows how likely each unit is in time, and the spread of its day', () => {
    const { id, due } = plan.units[0]!;
    const readyBy = [plan.sessions[0]!.start, due - 60, Infinity] as const;
    const withOdds = planPicture(plan, 'Fair & foul', colours, [
      { id, inTime: 0.9, readyBy, drivers: [] },
    ]).svg;
    expect(svg).not.toContain('in time');
    expect(withOdds).toContain('>in time: 9 in 10</text>');
    expect(withOdds).toMatch(
      /<path d="M[^"]+Z" fill="#123456" fill-opacity="0.45"\/><path d="(M[^"]+Z)?" fill="#123456" fill-opacity="0.5"/,
    );
  });

  it('keeps what the user wrote as text', () => {
    expect(svg).toContain('&#60;Ferries&#62; &#38; &#34;Co&#34;');
    expect(svg).not.toContain('<Ferries>');
  });
});
