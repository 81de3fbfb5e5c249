/** Printing and reading Python. Its parser is large, so all of this is loaded by python.ts when it is needed. */
export { printPython } from '../../../core/language/python/print.ts';
export { readPython } from '../../../core/language/python/read.ts';
export { syntaxProblem } from '../../../core/language/python/syntax.ts';
export { readValue, workedOut } from '../../../core/language/python/value.ts';
