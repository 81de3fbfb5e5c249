/** What is needed to talk to a device, and only then: loaded when one is plugged in. */
export { Cable, DIES_AT } from '../../../../board/standin/cable.ts';
export { Drive } from '../../../../board/standin/drive.ts';
export { inCondition, newMemory } from '../../../../board/standin/memory.ts';
export { written } from '../../../../core/language/letters.ts';
export { libraryFile, programFile } from '../../../../core/link/file.ts';
export { LinkClosed, LinkProblem } from '../../../../core/link/port.ts';
export { chooseProgram, deleteProgram, readProgram, showWhich } from '../../../../core/link/programs.ts';
export { identify } from '../../../../core/link/send.ts';
export { loadPython } from '../../python/python.ts';
export { fetchFrom, keepAway } from './away.ts';
export { dropOn, installOn, takingSays } from './drop.ts';
export { boardLibrary } from './library.ts';
export { sendTo, typeTo } from './sending.ts';
export { openSerial } from './serial.ts';
export { elsewhereSays, heldSays, portSays } from './says.ts';
export { Stillness } from './stuck.ts';
