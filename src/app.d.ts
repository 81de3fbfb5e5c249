declare namespace App {
  interface Error {
    message: string;
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
