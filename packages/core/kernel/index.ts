/** The innermost loops of settling and unfolding, for the WebAssembly compiler. Whoever runs them is in src/form. */
export * from './around'
export * from './bodies'
export * from './columns'
export * from './pairs'
export * from './press'
export * from './stress'
export * from './thread'
export * from './vectors'
