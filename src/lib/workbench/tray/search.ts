/** Finding a block by what a person calls it. */
export type Found = {
  kind: string;
  title: string;
  line: string;
  /** other names, with commas between */
  also: string;
  /** its help, its wording, its section */
  rest: string;
};

/**
 * Every word of the question must be found; better places come first: the title, then its other names, each from their
 * beginnings, then anywhere in the title and its line, then in the help.
 */
export function search<T extends Found>(cards: readonly T[], question: string): T[] {
  const words = question.trim().toLowerCase().split(/\s+/);
  const starts = (text: string, word: string): boolean => text.split(/[\s,.()]+/).some((part) => part.startsWith(word));
  const places = (card: T): ((word: string) => boolean)[] => {
    const [title, line, also, rest] = [card.title, card.line, card.also, card.rest].map((t) => t.toLowerCase());
    return [
      (word) => title === word,
      (word) => title.startsWith(word),
      (word) => starts(also, word),
      (word) => starts(title, word),
      (word) => `${title} ${line} ${also}`.includes(word),
      (word) => `${title} ${line} ${also} ${rest}`.includes(word)
    ];
  };
  return cards
    .map((card) => ({ card, at: places(card).findIndex((holds) => words.every(holds)) }))
    .filter(({ at }) => at >= 0)
    .sort((a, b) => a.at - b.at)
    .map(({ card }) => card);
}
