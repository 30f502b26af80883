/** The commands as a shell sees them. */
import { writeMuster } from '#core/muster';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { describe, expect, it } from 'vitest';

import { smallMuster } from '../core/plan/testing';

const folder = mkdtempSync(`${tmpdir()}/muster-cli-`);
const INSTANCES = 'core/kernel/instances';

function command(name: string, ...args: string[]) {
  return spawnSync(process.execPath, ['--import', 'tsx', `cli/${name}.ts`, ...args], { encoding: 'utf8' });
}
function file(name: string, text: string): string {
  const path = `${folder}/${name}`;
  writeFileSync(path, text);
  return path;
}

describe('solve', () => {
  it('prints a solution and ends with 0', () => {
    const { status, stdout } = command('solve', `${INSTANCES}/tiny-02.json`, '--iterations', '50');
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({ format: 'muster-solution/1' });
  });
  it('ends with 0 where there is proved to be no plan', () => {
    const { status, stdout } = command('solve', `${INSTANCES}/tiny-bad-window-shut.json`, '--seconds', '1');
    expect([status, (JSON.parse(stdout) as { status: string }).status]).toEqual([0, 'infeasible']);
  });
  it('names the path of what is wrong and ends with 2', () => {
    const bad = readFileSync(`${INSTANCES}/tiny-02.json`, 'utf8')
      .replace('"resource":"hands"', '"resource":"hnads"')
      .replace('"resource": "hands"', '"resource": "hnads"');
    const { status, stderr } = command('solve', file('bad.json', bad));
    expect(status).toBe(2);
    expect(stderr).toMatch(/operations\[\d+\]\.uses\[\d+\]\.resource: "hnads" is no resource/);
  });
});

describe('plan and check', () => {
  const muster = file('muster.json', writeMuster(smallMuster()));
  it('plans a muster to a file', () => {
    const out = `${folder}/plan.json`;
    expect(command('plan', muster, '--iterations', '20', '--out', out).status).toBe(0);
    const plan = JSON.parse(readFileSync(out, 'utf8')) as {
      units: { lateMinutes: number }[];
      sessions: unknown[];
    };
    expect(plan.units[0]!.lateMinutes).toBe(0);
    expect(plan.sessions.length).toBeGreaterThan(0);
  });
  it('plans for two people by name, each with one thing in hand at a time', () => {
    const small = smallMuster();
    const two = {
      ...small,
      bench: {
        ...small.bench,
        people: [
          { id: 'a', name: 'Ann' },
          { id: 'b', name: 'Bo' },
        ],
      },
      units: small.units.map((u) => ({
        ...u,
        pieces: [0, 1, 2, 3].map((k) => ({ ...u.pieces[0]!, id: `p${k}`, name: `Ferry ${k}` })),
      })),
    };
    const { status, stdout } = command('plan', file('two.json', writeMuster(two)), '--iterations', '60');
    expect(status).toBe(0);
    const plan = JSON.parse(stdout) as {
      sessions: { runs: { who?: string; from: string; to: string; steps: string[] }[] }[];
    };
    const runs = plan.sessions.flatMap((x) => x.runs);
    expect(new Set(runs.map((r) => r.who))).toEqual(new Set(['Ann', 'Bo']));
    for (const who of ['Ann', 'Bo']) {
      const own = runs.filter((r) => r.who === who).sort((x, y) => x.from.localeCompare(y.from));
      own.slice(1).forEach((r, k) => expect(r.from >= own[k]!.to).toBe(true));
    }
  });
  it('plans nothing where something is wrong, and says where', () => {
    const wrong = smallMuster();
    wrong.units[0]!.pieces[0]!.recipe = null;
    const path = file('wrong.json', writeMuster(wrong));
    const { status, stderr } = command('plan', path);
    expect([status, stderr]).toEqual([2, expect.stringContaining('Ferry 1')]);
    expect(command('check', path).status).toBe(1);
  });
  it('tells a clean muster from none', () => {
    expect(command('check', muster).status).toBe(0);
    expect(command('check', file('none.json', '{}')).status).toBe(2);
  });
});
