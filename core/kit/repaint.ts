/** Pictures of before: a digit stood for its tens of percent. */

/** A picture of then, to the nearest sign of now; what was lit stays lit. */
export const renewedPicture = (picture: string): string =>
  picture.replace(/[1-9]/g, (digit) => '.-+*#'[Math.max(1, Math.round(Number(digit) * 0.4))]);
const PAINTED = /(\bPicture\(\s*["'])([^"']*)(["']\s*\))/g;
/** A text with the pictures in it as they are written now. */
export const repaintedText = (text: string): string =>
  text.replace(
    PAINTED,
    (_, before: string, picture: string, after: string) => before + renewedPicture(picture) + after
  );

/** Every painted picture in a program or in what was copied, as it is written now. */
export function repainted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(repainted);
  if (typeof value !== 'object' || value === null) return value;
  if ('picture' in value && typeof value.picture === 'string' && Object.keys(value).length === 1)
    return { picture: renewedPicture(value.picture) };
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, repainted(one)]));
}
