/**
 * Which documents mention every word of a query: a plain inverted index with one bit a document.
 * It does not rank; it is for long texts, where ranking thousands of matches would take longer than a keystroke may.
 */

export interface Mentions {
  /**
   * Documents, by their place in the list, that have for each group of words at least one.
   * @param groups each a word and those that mean the same; `open` groups also match longer words that begin so
   */
  find: (groups: readonly { words: readonly string[]; open: boolean }[]) => number[];
}

/** A text as the words that are compared. */
export const wordsIn = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

export function buildMentions(texts: readonly string[]): Mentions {
  const size = Math.ceil(texts.length / 32);
  const postings = new Map<string, Uint32Array>();
  texts.forEach((text, i) => {
    for (const word of wordsIn(text)) {
      let bits = postings.get(word);
      if (!bits) postings.set(word, (bits = new Uint32Array(size)));
      bits[i >>> 5] = (bits[i >>> 5] ?? 0) | (1 << (i & 31));
    }
  });
  const terms = [...postings.keys()].sort();

  /** Every known word that begins with `start`. */
  function* beginning(start: string): Generator<string> {
    let low = 0;
    for (let high = terms.length; low < high;) {
      const middle = (low + high) >>> 1;
      if ((terms[middle] ?? '') < start) low = middle + 1;
      else high = middle;
    }
    for (let term = terms[low]; term?.startsWith(start); term = terms[++low]) yield term;
  }

  return {
    find: (groups) => {
      const all = new Uint32Array(size).fill(0xffffffff);
      for (const { words, open } of groups) {
        const any = new Uint32Array(size);
        for (const word of words)
          for (const term of open ? beginning(word) : [word]) {
            const bits = postings.get(term);
            if (bits) for (let i = 0; i < size; i += 1) any[i] = (any[i] ?? 0) | (bits[i] ?? 0);
          }
        for (let i = 0; i < size; i += 1) all[i] = (all[i] ?? 0) & (any[i] ?? 0);
      }
      return texts.flatMap((_, i) => (((all[i >>> 5] ?? 0) >>> (i & 31)) & 1 ? [i] : []));
    },
  };
}
