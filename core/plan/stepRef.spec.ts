/** What steps are called for the kernel: no two things alike, whatever a file calls its layers. */
import { expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile } from './index';
import { layer, smallMuster } from './testing';

it('a layer called done, or ready on a piece called as its unit, makes no muster impossible', () => {
  const own = smallMuster([layer('done'), layer('ready')]);
  const [unit] = own.units;
  const pieces = unit!.pieces.map((p, k) => (k === 0 ? { ...p, id: unit!.id } : p));
  const { problem } = compile({ ...own, units: [{ ...unit!, pieces }] });
  expect(new Set(problem.operations.map((o) => o.id)).size).toBe(problem.operations.length);
  expect(solveProblem(problem, { iterations: 5 }).cost).not.toBeNull();
});
