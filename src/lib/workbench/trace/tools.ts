/** What is asked of a run that is over. */
export { apart, shiftOf } from '../../../../core/trace/compare.ts';
export { sinceBefore } from '../../../../core/trace/findings/since.ts';
export { findings } from '../../../../core/trace/findings/findings.ts';
