/**
 * Who may know whom, types counted. Each folder lists those it may know; whoever isn't listed isn't known, so that no two folders
 * tie themselves to each other. Ground: model and quantity are one layer, say and verdict another.
 */
const mayKnow = {
  'core/quantity': ['model'],
  'core/model': ['quantity'],
  'core/plan': ['model', 'quantity'],
  'core/stats': ['model'],
  'core/imaging': ['stats'],
  'core/series': ['model', 'quantity'],
  'core/log': ['model', 'quantity', 'plan'],
  'core/mixing': ['model', 'quantity', 'plan', 'log'],
  'core/cost': ['model', 'quantity', 'plan', 'stats', 'log', 'mixing'],
  'core/analysis': ['model', 'quantity', 'plan', 'stats', 'log', 'mixing'],
  'core/sensory': ['model', 'quantity', 'plan', 'stats', 'log'],
  'core/design': ['model', 'quantity', 'plan', 'stats', 'log', 'cost'],
  'core/schedule': ['model', 'quantity', 'plan', 'log', 'mixing', 'design'],
  'core/account': ['model', 'quantity', 'plan', 'stats', 'log', 'mixing', 'cost', 'analysis', 'design'],
  'core/fairness': [
    'model',
    'quantity',
    'plan',
    'stats',
    'log',
    'mixing',
    'cost',
    'design',
    'schedule',
    'account',
  ],
  'core/say': [
    'model',
    'quantity',
    'plan',
    'stats',
    'log',
    'cost',
    'analysis',
    'account',
    'fairness',
    'verdict',
    'scorecard',
    'looks',
  ],
  'core/verdict': [
    'model',
    'quantity',
    'plan',
    'stats',
    'log',
    'cost',
    'analysis',
    'design',
    'account',
    'fairness',
    'say',
  ],
  'core/scorecard': ['model', 'quantity', 'plan', 'stats', 'analysis', 'account', 'verdict'],
  'core/looks': ['model', 'quantity', 'plan', 'stats', 'log', 'analysis', 'design', 'account'],
  'core/standings': ['model', 'quantity', 'plan', 'stats', 'account'],
  'core/formats': ['model', 'quantity', 'plan', 'log', 'imaging', 'series', 'analysis', 'design', 'account'],
  'core/picture': ['model', 'quantity', 'plan', 'stats', 'account'],
  'core/report': [
    ...[
      'model',
      'quantity',
      'plan',
      'stats',
      'log',
      'mixing',
      'cost',
      'analysis',
      'design',
      'schedule',
      'sensory',
    ],
    ...['account', 'fairness', 'say', 'verdict', 'formats', 'picture', 'scorecard', 'looks'],
  ],
  'core/table': ['model', 'log', 'account'],
  'core/truth': ['model', 'quantity', 'plan', 'stats', 'analysis', 'design', 'account', 'say'],
  'app/demo': [],
  'app/workers': ['demo'],
  'app/store': ['workers'],
  'app/ui': ['store'],
  'app/instruments': ['store', 'ui', 'workers'],
  'app/form': ['store', 'ui'],
  'app/walk': ['store', 'ui', 'form', 'instruments'],
  'app/lan': ['store', 'ui'],
  'app/library': ['store', 'ui', 'form'],
  'app/rooms': ['store', 'ui', 'form', 'walk', 'instruments', 'lan', 'library', 'workers'],
  'app/bench': ['store', 'ui', 'form', 'instruments', 'lan', 'library', 'rooms', 'workers', 'demo'],
};

/** A rule for each folder: within its house it knows itself and those of its list. */
const folders = Object.entries(mayKnow).map(([folder, known]) => {
  const [house, own] = folder.split('/');
  return {
    name: `${folder} knows ${known.length > 0 ? known.join(', ') : 'nobody'}`,
    severity: 'error',
    from: { path: `^${folder}/`, pathNot: '\\.test\\.tsx?$' },
    to: { path: `^${house}/(?!(${[own, ...known].join('|')})/)[^/]+/` },
  };
});

/** `npm test` runs it beside `.dependency-cruiser.cjs`, which looks at what runs. */
module.exports = {
  forbidden: folders,
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(build|\\.react-router|\\.cache|node_modules|core/testing|app/testing)' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
};
