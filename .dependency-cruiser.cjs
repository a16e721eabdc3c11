/** Who may know whom. `npm test` runs it. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      comment: 'Files that import each other in a circle can’t be read one at a time.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-is-pure',
      comment: 'Core knows nothing of the app, the command line, the browser or Node.',
      severity: 'error',
      from: { path: '^core/', pathNot: '(\\.test\\.ts$|^core/testing/)' },
      to: {
        path: '^(app|cli|scripts|e2e)/|^node:|node_modules/(react|@mui|dexie|chart\\.js|comlink|express)',
      },
    },
    {
      name: 'layers-of-core',
      comment:
        'model and quantity < plan < log < analysis, mixing, design … < account, cost < say < verdict < report < formats.',
      severity: 'error',
      from: { path: '^core/(model|quantity)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(?!model/|quantity/)' },
    },
    {
      name: 'plan-below-log',
      severity: 'error',
      from: { path: '^core/plan/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(?!model/|quantity/|plan/)' },
    },
    {
      name: 'stats-alone',
      comment: 'The mathematics knows no trial.',
      severity: 'error',
      from: { path: '^core/stats/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(?!stats/|model/result)' },
    },
    {
      name: 'log-below-rooms-of-core',
      severity: 'error',
      from: { path: '^core/log/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(analysis|account|say|verdict|report|formats|fairness|design|schedule|cost)/' },
    },
    {
      name: 'account-below-sentences',
      comment: 'Facts are worked out below the sentences that are made of them; types of lines may be known.',
      severity: 'error',
      from: { path: '^core/(account|cost)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(verdict|report|formats|fairness)/' },
    },
    {
      name: 'methods-seam',
      comment: 'What a method is made of stays in its folder: the rest knows contrasts.',
      severity: 'error',
      from: { path: '^core/(account|say|verdict|report|formats)/|^app/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(stats/compareTreatments|analysis/methods/(?!index))' },
    },
    {
      name: 'only-store-knows-dexie',
      severity: 'error',
      from: { path: '^app/', pathNot: '^app/store/|\\.test\\.ts$' },
      to: { path: 'node_modules/dexie' },
    },
    {
      name: 'workers-carry-no-schema',
      comment:
        'Workers get rows and answer with results; the one that reads files checks what it read, the one that makes the demo writes logs.',
      severity: 'error',
      from: { path: '^app/workers/.*\\.worker\\.ts$', pathNot: '^app/workers/(files|demo)\\.worker\\.ts$' },
      to: { path: 'node_modules/zod|^core/log/(state|resolve|entry)', reachable: true },
    },
    {
      name: 'parts-below-rooms',
      comment:
        'Parts of the interface don’t know the rooms that use them; a type of the registry is no knowledge.',
      severity: 'error',
      from: { path: '^app/(ui|form|instruments|store)/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^app/rooms/', pathNot: '^app/rooms/(registry|room)\\.ts$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(build|\\.react-router|\\.cache|node_modules/(?!dexie|zod))' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: false,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
};
