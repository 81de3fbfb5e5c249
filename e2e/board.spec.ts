import { expect, test, type Page } from '@playwright/test';
import { ChildBoard } from '../board/real/child.ts';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { b, log, program, start } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { workbench } from './room.ts';

/**
 * A serial port of the browser with a MicroPython at its other end that is not simulated: the interface object of Web Serial,
 * whose bytes go to a process of this test.
 */
async function serialPort(page: Page, board: () => ChildBoard): Promise<{ signals: unknown[]; bauds: number[] }> {
  const seen = { signals: [] as unknown[], bauds: [] as number[] };
  await page.exposeFunction('boardOpen', (baud: number) => void seen.bauds.push(baud));
  await page.exposeFunction('boardSignals', (signals: unknown) => void seen.signals.push(signals));
  await page.exposeFunction('boardWrite', (bytes: number[]) => board().write(Uint8Array.from(bytes)));
  await page.exposeFunction('boardRead', async () => [...((await board().read(200)) ?? [])]);
  await page.addInitScript(() => {
    type Bridge = {
      boardOpen(baud: number): Promise<void>;
      boardSignals(signals: object): Promise<void>;
      boardWrite(bytes: number[]): Promise<void>;
      boardRead(): Promise<number[]>;
    };
    const bridge = window as unknown as Bridge;
    const port = {
      readable: null as unknown,
      writable: null as unknown,
      async open({ baudRate }: { baudRate: number }) {
        await bridge.boardOpen(baudRate);
        let open = true;
        port.readable = new ReadableStream({
          async pull(controller) {
            while (open) {
              const bytes = await bridge.boardRead();
              if (bytes.length) return controller.enqueue(Uint8Array.from(bytes));
            }
          },
          cancel: () => void (open = false)
        });
        port.writable = new WritableStream({ write: (bytes: Uint8Array) => bridge.boardWrite([...bytes]) });
      },
      close: async () => {},
      setSignals: (signals: object) => bridge.boardSignals(signals)
    };
    const allowed = (): boolean => localStorage.getItem('allowed') === 'yes';
    Object.defineProperty(navigator, 'serial', {
      value: Object.assign(new EventTarget(), {
        getPorts: async () => (allowed() ? [port] : []),
        requestPort: async () => (localStorage.setItem('allowed', 'yes'), port)
      })
    });
  });
  return seen;
}

test('a board that is not simulated: pins on the kit sheet, allowed once, sent to, started, typed to, and back by itself', async ({
  page
}) => {
  test.setTimeout(180_000);
  const board = new ChildBoard();
  try {
    const seen = await serialPort(page, () => board);
    const steps = start(b('servo.angle', { servo: 'J4', angle: 120 }), log('from the board'));
    const data = { ...newProject('On my own board', barrow, longAisle), program: program(steps) };
    const made = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
    await page.goto(`/project/${made.id}`);
    await workbench(page);
    await page.getByTestId('chip').click();
    await page.getByLabel('Stand-in in the yard').selectOption('a board on a serial port');
    const panel = page.getByTestId('device-panel');
    await panel.getByRole('button', { name: 'Plug in', exact: true }).click();
    await expect(page.getByTestId('state')).toHaveText('library missing', { timeout: 20_000 });
    expect(seen.bauds).toEqual([115_200]);
    expect(seen.signals).toEqual([{ dataTerminalReady: true, requestToSend: false }]);
    // without a pin table there is nothing to drive
    await page.getByRole('button', { name: 'Send the program' }).click();
    await expect(page.getByTestId('device-message')).toContainText('Fill in the pins page of the kit sheet first.');
    await panel.getByRole('button', { name: 'More' }).click();
    await panel.getByRole('button', { name: 'Reset the board' }).click();
    await expect.poll(() => seen.signals.length).toBe(3);
    await panel.getByRole('link', { name: 'Pins' }).click();
    const problems = page.getByTestId('pin-problems');
    await expect(problems).toContainText('No pins yet: J1 left wheel, J2 right wheel, J4 striker');
    const pins = [
      2,
      3,
      undefined,
      undefined,
      undefined,
      4,
      5,
      undefined,
      undefined,
      undefined,
      6,
      7,
      8,
      9,
      26,
      26,
      10,
      11
    ];
    const fields = page.getByTestId('pins').getByRole('spinbutton');
    for (const [i, pin] of pins.entries())
      if (pin !== undefined) {
        await fields.nth(i).fill(String(pin));
        await fields.nth(i).press('Enter');
      }
    await expect(problems).toContainText('Pin 26 is given twice: J8 left, signal; J9 right, signal.');
    await fields.nth(15).fill('27');
    await fields.nth(15).press('Enter');
    await expect(problems).toContainText('Every part that needs pins has them, and none is given twice.');
    await expect(page.getByTestId('saving')).toHaveText('saved');

    // it was allowed once: it comes back by itself
    await page.goto(`/project/${made.id}`);
    await workbench(page);
    await expect(page.getByTestId('chip')).toContainText('a board on a serial port');
    await page.getByTestId('chip').click();
    await expect(page.getByTestId('state')).toHaveText('library missing', { timeout: 20_000 });
    await page.getByRole('button', { name: 'Send and start' }).click();
    await page.getByRole('button', { name: 'Install the library' }).click();
    await expect(page.getByTestId('device-message')).toContainText('as program 1', { timeout: 60_000 });
    await panel.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'More about the trace' }).click();
    await page.getByRole('button', { name: 'Log of the device' }).click();
    const typed = page.getByTestId('typed');
    await expect(typed).toContainText('log from the board', { timeout: 20_000 });
    await expect(typed).toContainText('ended done');
    // 120 degrees are a pulse of 1.667 ms
    const line = page.getByLabel('A line of Python for the device');
    await line.fill('import machine; print(machine.log[-1][1:])');
    await line.press('Enter');
    await expect(typed).toContainText("('ns', 6, 1666667)", { timeout: 20_000 });
  } finally {
    board.close();
  }
});
