/** Small counts as they are spelt, 1 to 12. */
export const NUMBER_WORDS: Readonly<Record<string, number>> = Object.fromEntries(
  ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'].map((word, i) => [word, i + 1]),
);
