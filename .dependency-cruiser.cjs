// The table of docs/decisions/0001-five-rooms.md: who may import whom.
const rooms = {
  core: [],
  contract: [],
  server: ['core', 'contract'],
  web: ['core', 'contract'],
  demo: ['core'],
  tests: ['contract'],
  bench: ['core', 'contract', 'demo'],
};
const all = Object.keys(rooms);
const outside = (room) => all.filter((other) => other !== room && !rooms[room].includes(other));

module.exports = {
  forbidden: [
    ...all.map((room) => ({
      name: `${room}-stays-in-its-room`,
      severity: 'error',
      from: { path: `^${room}/` },
      to: { path: `^(${outside(room).join('|')})/` },
    })),
    {
      name: 'core-computes-only',
      comment: 'No I/O, no framework, no clock: core stands on the language alone.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown'],
        // a stemmer, a writer of CSV, and graphs with their communities
        pathNot:
          'node_modules/(stemmer|papaparse|@types/papaparse|graphology|graphology-types|graphology-communities-louvain)/',
      },
    },
    {
      name: 'contract-knows-zod-only',
      severity: 'error',
      from: { path: '^contract/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^contract/', 'node_modules/zod'] },
    },
    {
      name: 'through-the-index',
      comment: 'A folder of core or server is entered by its index.ts.',
      severity: 'error',
      // a worker thread loads what it computes, not the routes beside it
      from: {
        path: '^(core|server)/src/([^/]+)/',
        pathNot: '^server/src/(jobs/threads/|exchange/readListed)',
      },
      to: {
        path: '^$1/src/[^/]+/',
        pathNot: [
          '^$1/src/$2/',
          '/index\\.ts$',
          '^$1/src/wording/',
          '^server/src/jobs/threads/',
          '^core/test/',
        ],
      },
    },
    {
      name: 'one-stop-stays-out-of-another',
      comment: 'On the web a stop stands on frame, parts and data, never on another stop.',
      severity: 'error',
      from: {
        path: '^web/src/(sheet|look|codebook|coding|learning|review|report|agreement|people|study|respondents|groups|writeUps|codeMaps|tone)/',
      },
      to: {
        path: '^web/src/(sheet|look|codebook|coding|learning|review|report|agreement|people|study|respondents|groups|writeUps|codeMaps|tone)/',
        pathNot: '^web/src/$1/',
      },
    },
    {
      name: 'web-lib-stands-alone',
      comment: 'Numbers, problems and stitches know nothing of the rest of the web.',
      severity: 'error',
      from: { path: '^web/src/lib/' },
      to: { path: '^web/src/', pathNot: '^web/src/lib/' },
    },
    {
      name: 'web-parts-know-no-data',
      comment: 'Parts are drawn from what they are given; studyParts know the study.',
      severity: 'error',
      from: { path: '^web/src/parts/' },
      to: { path: '^web/src/', pathNot: '^web/src/(parts|lib)/' },
    },
    {
      name: 'web-data-draws-nothing',
      severity: 'error',
      from: { path: '^web/src/data/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^web/src/', pathNot: '^web/src/(data|lib)/' },
    },
    {
      name: 'web-study-parts-know-no-stop',
      severity: 'error',
      from: { path: '^web/src/studyParts/' },
      to: {
        path: '^web/src/',
        pathNot: '^web/src/(studyParts|parts|data|lib|frame/(studyLocation|drawer))',
      },
    },
    {
      name: 'contract-endpoints-through-the-api',
      comment: 'Records of a folder may be used in another; endpoints only make up the API.',
      severity: 'error',
      from: { path: '^contract/src/([^/]+)/' },
      to: {
        path: '^contract/src/[^/]+/(endpoints|[a-z]+Endpoints)\\.ts$',
        pathNot: '^contract/src/$1/',
      },
    },
    {
      name: 'index-only-exports',
      comment: 'An index.ts exports; what it exports is written beside it.',
      severity: 'error',
      from: { path: '^(core|server)/src/[^/]+/index\\.ts$' },
      to: { pathNot: ['^$1/src/', '^core/src/'] },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: {
        orphan: true,
        pathNot: [
          '\\.(cjs|mjs)$',
          '\\.d\\.ts$',
          '/main\\.tsx?$',
          '\\.config\\.ts$',
          '/migrations/',
        ],
      },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/(dist|dist-types)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['source', 'import', 'types'],
    },
  },
};
