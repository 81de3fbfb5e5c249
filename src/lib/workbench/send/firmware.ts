/** The firmware that stand-ins run, as a file for their drives. */
import wasm from '@micropython/micropython-webassembly-pyscript/micropython.wasm?url';
import { version } from '@micropython/micropython-webassembly-pyscript/package.json';
import { FACTORY_VERSION } from '../../../../board/standin/demo.ts';
import { utf8 } from '../../../../core/bytes.ts';
import { imageOf } from '../../../../core/link/file.ts';

export async function firmwareImage(what: 'micropython' | 'factory'): Promise<Uint8Array> {
  if (what === 'factory') return imageOf('factory', FACTORY_VERSION, utf8('factory demo'));
  const bytes = new Uint8Array(await (await fetch(wasm)).arrayBuffer());
  return imageOf('micropython', version.split('.').slice(0, 2).join('.'), bytes);
}
