import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { opensAfter, restingOn, workMinutes } from '#core/recipe';
import { duration, waveOf, type Wave, type WaveInput } from '#core/plan';
import { MusterStore } from '../data/musterStore';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { Patterns } from '../ui/patterns';
import { WordHelp } from '../ui/word';
import { Card } from '../ui/card';

const WIDTH = 1040;
const ROW = 26;
const LEFT = 70;
const LIMIT_WORDS = {
  window: 'the window',
  places: 'places to put them',
  handles: 'handles',
  cup: 'one cup of paint',
  session: 'the session',
} as const;

/** The wave: how many pieces can go through a window together, drawn as overlapping tides. */
@Component({
  selector: 'pm-wave-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, WordHelp, ChoiceField, NumberField, Patterns],
  templateUrl: './wave.view.html',
})
export class WaveView {
  protected readonly fields = FIELDS;
  protected readonly store = inject(MusterStore);
  protected readonly input = signal<WaveInput>({ first: 4, second: 6, change: 8, opens: 20, closes: 60 });
  protected readonly chosen = signal('');

  /** Windows of the muster's recipes, to begin from. */
  protected readonly windows = computed(() =>
    this.store.muster()!.recipes.flatMap((recipe) =>
      recipe.layers.flatMap((layer, index) => {
        const next = restingOn(recipe, index)[0];
        const closes = layer.window?.closesMinutes;
        if (closes == null || next === undefined) return [];
        const bench = this.store.muster()!.bench;
        return [
          {
            key: `${recipe.id} ${layer.id}`,
            text: `${recipe.name}: ${layer.name} → ${recipe.layers[next]!.name}`,
            input: {
              first: workMinutes(layer, 1),
              second: workMinutes(recipe.layers[next]!, 1),
              change: layer.method === 'airbrush' ? bench.airbrush.cleanMinutes : bench.layoutMinutes,
              opens: opensAfter(layer),
              closes,
              places: bench.rackPlaces,
            },
          },
        ];
      }),
    ),
  );
  protected readonly choices = computed((): readonly Choice[] => [
    { value: '', text: 'my own figures' },
    ...this.windows().map((w) => ({ value: w.key, text: w.text })),
  ]);

  protected readonly result = computed((): { wave: Wave | null; fault: string | null } => {
    try {
      return { wave: waveOf(this.input()), fault: null };
    } catch (error) {
      return { wave: null, fault: error instanceof Error ? error.message : String(error) };
    }
  });
  protected readonly verdict = computed(() => {
    const { wave } = this.result();
    if (!wave) return '';
    const first = wave.limits[0];
    if (wave.pieces === 0)
      return `None: ${first ? LIMIT_WORDS[first.by] : 'nothing'} does not let even one through.`;
    return `${wave.pieces} ${wave.pieces === 1 ? 'piece' : 'pieces'} together, in ${duration(wave.minutes)}. ${first ? `It is ${LIMIT_WORDS[first.by]} that ends it.` : ''}`;
  });
  protected readonly limits = computed(() =>
    (this.result().wave?.limits ?? []).map((l) => ({ name: LIMIT_WORDS[l.by], pieces: l.pieces })),
  );

  /** Rows of the drawing: first layer, wet falling to its opening, open to its closing, second layer. */
  protected readonly rows = computed(() => {
    const { wave } = this.result();
    if (!wave || wave.pieceTimes.length === 0) return [];
    const last = Math.max(...wave.pieceTimes.map((p) => Math.max(p.second[1], p.closes)));
    const x = (t: number): number => LEFT + ((WIDTH - LEFT - 10) * t) / last;
    return wave.pieceTimes.map((p, k) => {
      const y = k * ROW + 4;
      const base = y + ROW - 8;
      return {
        k,
        y,
        base,
        first: { x: x(p.first[0]), width: x(p.first[1]) - x(p.first[0]) },
        second: { x: x(p.second[0]), width: x(p.second[1]) - x(p.second[0]) },
        tide: `M${x(p.first[1])},${y} C${x(p.first[1] + (p.closes - p.first[1]) * 0.35)},${y + (ROW - 8) * 0.75} ${x(p.opens)},${base - 3} ${x(p.closes)},${base} L${x(p.first[1])},${base} Z`,
        opens: x(p.opens),
        closes: x(p.closes),
      };
    });
  });
  protected readonly height = computed(() => this.rows().length * ROW + 12);
  protected readonly width = WIDTH;

  protected choose(key: string): void {
    this.chosen.set(key);
    const window = this.windows().find((w) => w.key === key);
    if (window) this.input.set(window.input);
  }

  protected set(part: Partial<Record<keyof WaveInput, number | null>>): void {
    this.chosen.set('');
    this.input.update((i) => {
      const next: Record<string, number> = {};
      for (const [k, v] of Object.entries({ ...i, ...part })) if (v !== null && v !== undefined) next[k] = v;
      return next as unknown as WaveInput;
    });
  }
}
