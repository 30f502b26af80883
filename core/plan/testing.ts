/** A small muster for tests: one unit, two pieces, a chipping window, an evening every day. */
import type { Layer, Muster } from '#core/muster';

export function layer(id: string, extra: Partial<Layer> = {}): Layer {
  return {
    id,
    name: id,
    colour: '#808080',
    family: 'acrylic',
    method: 'brush',
    zones: [],
    mixture: '',
    coats: 1,
    minutes: 5,
    dryMinutes: 15,
    window: null,
    waitsFor: [],
    pausable: false,
    note: '',
    ...extra,
  };
}

export function smallMuster(layers: Layer[] = defaultLayers()): Muster {
  return {
    format: 'patient-muster/2',
    name: 'Test quay',
    startsOn: '2027-03-01T18:00',
    bench: {
      timeZone: 'UTC',
      people: [{ id: 'me', name: 'Me' }],
      airbrush: { loadMinutes: 3, changeMinutes: 5, cleanMinutes: 10, idleMinutes: 40 },
      layoutMinutes: 0,
      rackPlaces: 6,
      weekly: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({
        id: `w${weekday}`,
        weekday,
        from: '19:00',
        to: '21:00',
      })),
      exceptions: [],
      climate: {
        day: { celsius: 21, humidityPercent: 50 },
        night: { celsius: 21, humidityPercent: 50 },
        dayFrom: '08:00',
        nightFrom: '20:00',
      },
    },
    recipes: [{ id: 'r', name: 'Hull', zones: [{ id: 'z', name: 'Sides' }], layers }],
    units: [
      {
        id: 'u',
        name: 'Ferries',
        table: '2027-03-05T12:00',
        readyFrom: null,
        importance: 2,
        pieces: [
          { id: 'p1', name: 'Ferry 1', recipe: 'r', count: 1, places: 1, joins: null },
          { id: 'p2', name: 'Ferry 2', recipe: 'r', count: 1, places: 1, joins: null },
        ],
      },
    ],
  };
}

function defaultLayers(): Layer[] {
  return [
    layer('prime', { family: 'primer', method: 'airbrush', dryMinutes: 60 }),
    layer('medium', {
      family: 'medium',
      method: 'airbrush',
      dryMinutes: 20,
      window: { opensMinutes: 20, closesMinutes: 60, preferMinutes: null, through: null },
    }),
    layer('top', { method: 'airbrush', mixture: 'cream 3:1' }),
    layer('chip', { family: 'work', task: 'lift', dryMinutes: 0, pausable: true, minutes: 12 }),
    layer('seal', { family: 'varnish', dryMinutes: 240 }),
  ];
}
