const { options } = require('./.dependency-cruiser.cjs');

/** No circles between folders; a test may look at what stands above it. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles-of-folders',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: '\\.test\\.tsx?$|^tests/|^bench/|^core/testing/' } },
};
