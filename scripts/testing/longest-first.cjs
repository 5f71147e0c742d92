const { default: Sequencer } = require('@jest/test-sequencer')

/** Which kind of test takes longest: begun last, a long file would keep one worker busy when there is nothing left for the other. */
const longest = ['browser', 'set-up', 'server', 'core', 'cli', 'components', 'web']

/** Kinds of tests by how long they take, and within a kind as Jest sorts them: by how long they took, or else by size. */
module.exports = class LongestFirst extends Sequencer {
  sort(tests) {
    const rank = ({ path, context }) =>
      path.endsWith('for-everyone.test.ts') ? -1 : longest.indexOf(context.config.displayName?.name)
    return [...super.sort(tests)].sort((a, b) => rank(a) - rank(b))
  }
}
