/** Stands for a style sheet: each class is called what it is called there. */
module.exports = new Proxy({}, { get: (_, name) => (name === '__esModule' ? false : name) })
