/** Test files of one process share their modules: each begins in English. */
import { ENGLISH, speakFrom } from '../words.ts';

speakFrom(() => ENGLISH);
