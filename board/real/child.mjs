/**
 * A board that is not simulated, for tests: MicroPython as its makers build it for WebAssembly, in a process of its own, with
 * its own clock and REPL behind its standard input and output. Of `machine` it has a module that records (machine.py here).
 */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { readFileSync } from 'node:fs';

const mp = await loadMicroPython({
  heapsize: 4 * 1024 * 1024,
  pystack: 128 * 1024,
  linebuffer: false,
  stdout: (bytes) => process.stdout.write(Buffer.from(bytes))
});
mp.FS.mkdir('/rom');
mp.FS.writeFile('/rom/machine.py', readFileSync(new URL('machine.py', import.meta.url)));
mp.FS.mkdir('/flash');
mp.FS.chdir('/flash');
mp.runPython("import sys\nsys.path[:] = ['', '/rom', '/flash/lib']");
mp.replInit();
process.stdin.on('data', (bytes) => {
  for (const byte of bytes) if (mp.replProcessChar(byte)) mp.replInit();
});
process.stdin.on('end', () => process.exit(0));
