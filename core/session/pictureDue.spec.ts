import { describe, expect, it } from 'vitest';
import { pictureDue } from './index';
import { plan } from './testing';

const steps = [...plan.steps.values()];
const last = steps.find((s) => s.layerIndex === s.recipe.layers.length - 1 && s.round === s.rounds)!;
const inside = steps.find((s) => s.layerIndex === 1 && s.layer.level === undefined)!;

describe('a picture is due', () => {
  it('of a piece that is finished with this coat, of a pilot, and where a level is reached; else not', () => {
    expect(pictureDue([last])).toBe(`${last.piece.name}: finished with this coat.`);
    expect(pictureDue([inside])).toBeNull();
    expect(pictureDue([])).toBeNull();
    const pilot = { ...inside, piece: { ...inside.piece, isPilot: true } };
    expect(pictureDue([inside, pilot])).toContain('what the others go by');
    expect(pictureDue([{ ...inside, layer: { ...inside.layer, level: 1 } }])).toContain('level');
    const asked = { ...inside, layer: { ...inside.layer, isPictured: true } };
    expect(pictureDue([asked])).toBe(`${inside.piece.name}: the recipe wants one of “${inside.layer.name}”.`);
    const other = { ...last, piece: { ...last.piece, name: 'The other' } };
    expect(pictureDue([last, other])).toContain(`${last.piece.name} and The other`);
    expect(pictureDue([last, last, last])).toContain('3 pieces');
  });
});
