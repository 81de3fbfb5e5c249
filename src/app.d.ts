declare namespace App {
  interface Error {
    message: string;
  }
  interface Locals {
    /** the language of the interface that the request asks for */
    language: string;
    /** whom the request comes from */
    who: import('./lib/server/people.ts').Who;
    /** whether that one may still do what was asked */
    still: () => boolean;
  }
}
/** Draws on an SVG what is told to a canvas; the package has no types of its own. */
declare module 'svgcanvas' {
  export class Context {
    constructor(options: { width: number; height: number; document?: Document });
    getSerializedSvg(fixNamedEntities?: boolean): string;
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
