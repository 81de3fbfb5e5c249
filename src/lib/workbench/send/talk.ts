/** What is needed to talk to a device, and only then: loaded when one is plugged in. */
export { default as CRC32 } from 'crc-32';
export { Cable } from '../../../../board/standin/cable.ts';
export { Drive, DRIVE_RATE } from '../../../../board/standin/drive.ts';
export { inCondition, newMemory } from '../../../../board/standin/memory.ts';
export { unzipped, utf8 } from '../../../../core/bytes.ts';
export { written } from '../../../../core/language/letters.ts';
export { libraryFile, programFile, tooLarge } from '../../../../core/link/file.ts';
export { LinkClosed, LinkProblem } from '../../../../core/link/port.ts';
export { chooseProgram, deleteProgram, readProgram, showWhich, typeLine } from '../../../../core/link/programs.ts';
export { identify, send } from '../../../../core/link/send.ts';
export { loadPython } from '../../python/python.ts';
export { firmwareImage } from './firmware.ts';
export { boardLibrary } from './library.ts';
export { elsewhereSays, failedSays, heldSays, sentSays } from './says.ts';
