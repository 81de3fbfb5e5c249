/** The Python tools: fetched once the workbench stands, or when something asks for them. */
type Tools = typeof import('./tools.ts');
let tools: Tools | undefined;
export async function loadPython(): Promise<Tools> {
  return (tools ??= await import('./tools.ts'));
}
/** The tools where they are there already: for what must happen at once, such as filling the clipboard. */
export const pythonNow = (): Tools | undefined => tools;
