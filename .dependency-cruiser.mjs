// What may import what; types count. Run by `npm run lint`.
export default {
  forbidden: [
    {
      name: 'no-circles',
      comment: 'Whoever reads one file of a circle has to read them all.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-below',
      comment: 'core is for browser and server alike, and knows neither.',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(server|web|demo|e2e|bench|faults)/' },
    },
    {
      name: 'server-apart',
      severity: 'error',
      from: { path: '^server/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { path: '^(web|demo|e2e|bench|faults)/' },
    },
    {
      name: 'web-apart',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|demo|e2e|bench|faults)/' },
    },
    {
      name: 'platform-below',
      comment: 'What every feature of the desk may use knows none of them, nor the frame.',
      severity: 'error',
      from: { path: '^web/src/app/desk/platform/' },
      to: { path: '^web/src/app/desk/(?!platform/)' },
    },
    {
      name: 'frame-knows-no-feature',
      comment: 'The frame shows what features register (desk/platform/feature).',
      severity: 'error',
      from: { path: '^web/src/app/desk/frame/' },
      to: { path: '^web/src/app/desk/(?!platform/|frame/)' },
    },
    {
      name: 'features-apart',
      comment:
        'A feature of the desk is its folder: it knows the platform, and others by what they register.',
      severity: 'error',
      from: { path: '^web/src/app/desk/features/([^/]+)/' },
      to: { path: '^web/src/app/desk/(?!platform/|features/$1/)' },
    },
    {
      name: 'desk-by-its-door',
      comment: 'Whoever is not of the desk may use its platform, and its screen.',
      severity: 'error',
      from: { path: '^web/src/(?!app/desk/)' },
      to: { path: '^web/src/app/desk/(?!platform/|desk-screen)', pathNot: '\\.test\\.ts$' },
    },
    {
      name: 'no-testing-in-use',
      comment: 'What tests need is not shipped.',
      severity: 'error',
      from: { path: '^(core|server|web)/src/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { path: '\\.test\\.ts$|/testing/' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
  },
};
