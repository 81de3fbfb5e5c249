import { say } from '../../../core/words.ts';
/** What is said where the server is not reached. */
export const silent = (): string => say('The school computer does not answer. Is Moss Bell still running there?');
