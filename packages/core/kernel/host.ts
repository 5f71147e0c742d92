/** Arithmetic that whoever runs the loops does for them: an engine has its own, and another would differ in the last bit. */
export declare function log(x: f64): f64
export declare function pow(x: f64, y: f64): f64
