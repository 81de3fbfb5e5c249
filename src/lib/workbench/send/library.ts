/** The board library, loaded when a device needs it. */
export async function boardLibrary(): Promise<{ text: string; version: string }> {
  const { default: text } = await import('../../../../board/lib/mossbell.py?raw');
  return { text, version: /VERSION = "([^"]+)"/.exec(text)![1] };
}
/** The port of boards that are not simulated. */
export const boardPort = async (): Promise<string> =>
  (await import('../../../../board/lib/port_machine.py?raw')).default;
