/** A board on a serial port of this computer, through the browser's Web Serial API (W3C community draft). */
import { LinkClosed, type LinkPort } from '../../../../core/link/port.ts';
import { Arrived } from '../../../../board/standin/arrived.ts';

/** What of the interface is used here. */
export type Port = {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  setSignals?(signals: { dataTerminalReady?: boolean; requestToSend?: boolean }): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
};
export type Serial = EventTarget & { getPorts(): Promise<Port[]>; requestPort(): Promise<Port> };
/** Not every browser has it, and none where a page is not secure. */
export const serialOf = (): Serial | undefined =>
  typeof navigator === 'undefined' ? undefined : (navigator as unknown as { serial?: Serial }).serial;
/** Common settings of boards with MicroPython (common practice); over USB any of them does. */
export const BAUDS = [9600, 57_600, 115_200, 230_400, 460_800, 921_600] as const;
const RESET_MS = 120;

export class SerialLink implements LinkPort {
  private readonly arrived = new Arrived();
  private reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  private constructor(
    private readonly port: Port,
    private readonly gone: () => void
  ) {}
  /** @param gone it was unplugged @throws what the browser says when the port is taken or away */
  static async open(port: Port, baudRate: number, gone: () => void): Promise<SerialLink> {
    await port.open({ baudRate });
    // many boards start anew when these change: they are let alone
    await port.setSignals?.({ dataTerminalReady: true, requestToSend: false }).catch(() => undefined);
    const link = new SerialLink(port, gone);
    void link.listen();
    return link;
  }
  private async listen(): Promise<void> {
    try {
      const reader = (this.reader = this.port.readable!.getReader());
      for (;;) {
        const { value, done } = await reader.read();
        if (done) break;
        this.arrived.put(value);
      }
    } catch {
      // it was pulled out
    }
    if (!this.arrived.closed) {
      this.arrived.close();
      this.gone();
    }
  }
  async write(bytes: Uint8Array): Promise<void> {
    if (this.arrived.closed || !this.port.writable) throw new LinkClosed();
    const writer = this.port.writable.getWriter();
    try {
      await writer.write(bytes);
    } catch {
      throw new LinkClosed();
    } finally {
      writer.releaseLock();
    }
  }
  read(timeoutMs: number): Promise<Uint8Array | undefined> {
    return this.arrived.read(timeoutMs);
  }
  /** What it says, line by line, for as long as `goesOn`. */
  async lines(goesOn: () => boolean, tell: (line: string) => void): Promise<void> {
    const decoder = new TextDecoder();
    let rest = '';
    while (goesOn()) {
      const bytes = await this.read(300).catch(() => undefined);
      if (!bytes) continue;
      const lines = (rest + decoder.decode(bytes, { stream: true })).split(/\r?\n/);
      rest = lines.pop()!;
      for (const line of lines) {
        // the raw REPL's own signs around what was said
        const said = line.replace(/^OK/, '').replaceAll('\u0004', '').replace(/^>/, '').trim();
        if (said) tell(said);
      }
    }
  }
  /** Pulls the line that many boards are reset by, and lets it go. */
  async reset(): Promise<void> {
    await this.port.setSignals?.({ dataTerminalReady: false, requestToSend: true });
    await new Promise((resolve) => setTimeout(resolve, RESET_MS));
    await this.port.setSignals?.({ dataTerminalReady: true, requestToSend: false });
  }
  async close(): Promise<void> {
    if (this.arrived.closed) return;
    this.arrived.close();
    await this.reader?.cancel().catch(() => undefined);
    this.reader?.releaseLock();
    await this.port.close().catch(() => undefined);
  }
}
/** The port that this browser was allowed before, or one that the person chooses now. */
export async function openSerial(baudRate: number, gone: () => void): Promise<SerialLink> {
  const serial = serialOf()!;
  const [allowed] = await serial.getPorts();
  return SerialLink.open(allowed ?? (await serial.requestPort()), baudRate, gone);
}
