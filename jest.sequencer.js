const path = require('node:path');
const { default: Sequencer } = require('@jest/test-sequencer');

/** What plays hands over photographs takes longest, and begins first: begun last, one core would wait for it. */
const LONG = path.join('reference', 'hands');

module.exports = class extends Sequencer {
  sort(tests) {
    const isLong = ({ path: file }) => file.includes(LONG);
    return [...super.sort(tests)].sort((a, b) => Number(isLong(b)) - Number(isLong(a)));
  }
};
