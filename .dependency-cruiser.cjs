/** Which room may import which: one direction of flow, each room by its door (docs/architecture.md). */
const rooms = {
  kernel: [],
  materials: [],
  climate: ['materials'],
  muster: ['materials', 'climate'],
  optics: ['materials', 'muster'],
  recipe: ['materials', 'muster', 'climate', 'optics'],
  entry: ['muster'],
  learn: ['kernel', 'materials', 'muster'],
  amounts: ['materials', 'muster', 'recipe'],
  variety: ['kernel', 'materials', 'muster', 'optics', 'recipe', 'amounts'],
  library: ['materials', 'muster', 'recipe'],
  plan: ['kernel', 'materials', 'climate', 'muster', 'optics', 'recipe', 'variety', 'amounts', 'learn'],
  find: ['muster', 'entry', 'plan'],
  log: ['materials', 'muster'],
  stores: ['materials', 'muster', 'optics', 'recipe', 'variety', 'amounts', 'plan', 'log', 'session'],
  session: ['kernel', 'materials', 'climate', 'muster', 'recipe', 'amounts', 'learn', 'plan', 'log'],
  odds: ['kernel', 'climate', 'muster', 'recipe', 'learn', 'plan', 'log', 'session', 'stores'],
  exchange: [
    'kernel',
    'materials',
    'climate',
    'muster',
    'recipe',
    'amounts',
    'learn',
    'plan',
    'stores',
    'log',
    'session',
  ],
};

const roomRules = Object.entries(rooms).map(([room, allowed]) => ({
  name: `${room}-imports`,
  comment: `core/${room} may import ${allowed.length > 0 ? allowed.join(', ') : 'none of its neighbours'}`,
  severity: 'error',
  from: { path: `^core/${room}/`, pathNot: '[.]spec[.]ts$|/testing[.]ts$' },
  to: { path: '^core/', pathNot: `^core/(${[room, ...allowed].join('|')})/` },
}));

/** The floors of the kernel: each stands on those before it. */
const floors = ['document', 'model', 'prove', 'place', 'search', 'answer'];

const floorRules = floors.map((floor, k) => ({
  name: `kernel-${floor}-stands-on`,
  comment: `core/kernel/${floor} stands on ${k === 0 ? 'nothing' : floors.slice(0, k).join(', ')}`,
  severity: 'error',
  from: { path: `^core/kernel/${floor}/`, pathNot: '[.]spec[.]ts$|/testing[.]ts$' },
  to: { path: '^core/kernel/', pathNot: `^core/kernel/(${floors.slice(0, k + 1).join('|')})/` },
}));

module.exports = {
  forbidden: [
    ...roomRules,
    ...floorRules,
    {
      name: 'by-the-door',
      comment: 'another room is entered by its index.ts',
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: '[.]spec[.]ts$|/testing[.]ts$' },
      to: { path: '^core/', pathNot: ['^core/$1/', '^core/[^/]+/index[.]ts$'] },
    },
    {
      name: 'core-by-the-door',
      severity: 'error',
      from: { path: '^(app|cli|server|demo)/', pathNot: '[.]spec[.]ts$|/testing[.]ts$' },
      to: { path: '^core/', pathNot: '^core/[^/]+/index[.]ts$' },
    },
    {
      name: 'bench-by-the-door',
      comment: 'simulated benches are shared by specs and bench',
      severity: 'error',
      from: { path: '^bench/' },
      to: { path: '^core/', pathNot: '^core/[^/]+/(index|testing)[.]ts$' },
    },
    {
      name: 'core-stands-alone',
      comment: 'no interface, no browser, no Node in core',
      severity: 'error',
      from: { path: '^core/', pathNot: '[.]spec[.]ts$|/testing([.]ts$|/)' },
      to: {
        path: [
          '^(app|cli|server|demo|bench|e2e|scripts)/',
          '^node_modules/(@angular|rxjs|dexie|express)',
          '^(node:)?(fs|path|process)$',
        ],
      },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.node.json' },
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
