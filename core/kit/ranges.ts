/** What motors and sensors can give, where more than the yard must know it. */

/** 100 % of a measured move, m/s. */
export const FULL_SPEED = 0.4;

/** The distance sensor, cm. */
export const NEAREST_CM = 4;
export const FURTHEST_CM = 180;
