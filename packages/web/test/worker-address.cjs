/** Stands for the address of a worker that the build has made. */
module.exports = '/assets/core.worker.js'
