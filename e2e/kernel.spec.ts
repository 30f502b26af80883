/** The kernel in Chromium and in Node: the same seed and iterations, the same solution. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { build } from 'esbuild';
import { parseProblem, solveProblem, type Problem } from '../core/kernel/index';

const FOLDER = new URL('../core/kernel/', import.meta.url);
const instance = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`instances/${name}.json`, FOLDER), 'utf8'));

for (const [name, iterations] of [
  ['tiny-05', 200],
  ['jobshop-la01', 60],
  ['batch-60-1', 400],
  ['soft-60-1', 200],
] as const)
  test(`${name} comes out the same in Chromium as in Node`, async ({ page }) => {
    const bundle = await build({
      entryPoints: [fileURLToPath(new URL('index.ts', FOLDER))],
      bundle: true,
      format: 'iife',
      globalName: 'kernel',
      write: false,
      target: 'es2022',
    });
    const problem = instance(name);
    await page.goto('about:blank');
    await page.addScriptTag({ content: bundle.outputFiles[0]!.text });
    const inChromium = await page.evaluate(
      ({ document, n }) => {
        const { kernel } = globalThis as unknown as {
          kernel: { parseProblem: typeof parseProblem; solveProblem: typeof solveProblem };
        };
        return JSON.stringify(kernel.solveProblem(kernel.parseProblem(document), { iterations: n, seed: 3 }));
      },
      { document: problem, n: iterations },
    );
    const inNode = solveProblem(parseProblem(problem), { iterations, seed: 3 });
    expect(inChromium).toBe(JSON.stringify(inNode));
    expect(inNode.operations).toHaveLength((problem as Problem).operations.length);
  });
