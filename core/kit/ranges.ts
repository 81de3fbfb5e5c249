/** What sensors can give, where more than the yard must know it. */

/** The distance sensor, cm. */
export const NEAREST_CM = 4;
export const FURTHEST_CM = 180;
