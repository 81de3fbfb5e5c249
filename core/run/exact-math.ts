/**
 * Engines differ in the last bit of Math.sin and its like. A run must be the same byte for byte everywhere, so these
 * functions are replaced, before planck loads, by the ones of @stdlib, which are plain arithmetic.
 * Must be the first import of every worker, command and test.
 */
import acos from '@stdlib/math-base-special-acos';
import asin from '@stdlib/math-base-special-asin';
import atan from '@stdlib/math-base-special-atan';
import atan2 from '@stdlib/math-base-special-atan2';
import cos from '@stdlib/math-base-special-cos';
import exp from '@stdlib/math-base-special-exp';
import ln from '@stdlib/math-base-special-ln';
import pow from '@stdlib/math-base-special-pow';
import sin from '@stdlib/math-base-special-sin';
import tan from '@stdlib/math-base-special-tan';

Object.assign(Math, { sin, cos, tan, asin, acos, atan, atan2, exp, log: ln, pow });
