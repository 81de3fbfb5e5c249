/** UTF-8 without the DOM's TextEncoder, which the core's types do not know. */
export const utf8 = (text: string): Uint8Array =>
  Uint8Array.from(
    encodeURIComponent(text).replace(/%([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    (c) => c.charCodeAt(0)
  );
