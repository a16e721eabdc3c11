/** What runs with what; `npm test` runs it. Which folder may know which stands in `.layers.cjs`. */
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
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(build|\\.react-router|\\.cache|node_modules/(?!dexie|zod))' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: false,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
};
