declare namespace App {
  interface Error {
    message: string;
  }
  interface Locals {
    /** the language of the interface that the request asks for */
    language: string;
  }
}
declare module '*.wasm?url' {
  const url: string;
  export default url;
}
declare module '*.py?raw' {
  const text: string;
  export default text;
}
declare module '@micropython/micropython-webassembly-pyscript' {
  export function loadMicroPython(options: object): Promise<unknown>;
}
