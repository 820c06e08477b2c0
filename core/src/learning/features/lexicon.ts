import { splitWords } from '../../text/index.js';
import { newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { WordEmbeddings } from './wordEmbeddings.js';

/** Properties of words by word id. Arrays are replaced when they grow. */
export interface KnownWords {
  forms: string[];
  /** Column of the word, −1 for none. */
  column: Int32Array;
  /**
   * Columns of the runs of characters of word w, a run as often as it stands in the word: run[firstRun[w]] …
   * run[firstRun[w + 1] − 1]. And Σ idf² of these.
   */
  firstRun: Int32Array;
  run: Int32Array;
  runSquares: Float64Array;
  /** Its idf in the mean of embeddings. */
  idf: Float64Array;
}

export const formsOf = (text: string, excluded: ReadonlySet<string>): string[] => {
  const forms = splitWords(text).map(({ form }) => form);
  return excluded.size === 0 ? forms : forms.filter((form) => !excluded.has(form));
};

const SHORTEST_RUN = 2;
const LONGEST_RUN = 5;

/**
 * Runs of 2 to 5 characters inside a word padded by one space on either side; a padded word shorter
 * than the run counts once, whole.
 *
 * @see the `char_wb` analyser as documented in the user guide of scikit-learn (Pedregosa et al. 2011)
 */
export function characterRuns(
  word: string,
  shortest = SHORTEST_RUN,
  longest = LONGEST_RUN,
): string[] {
  const padded = [...` ${word} `];
  const runs: string[] = [];
  for (let length = shortest; length <= longest; length++) {
    if (padded.length <= length) {
      runs.push(padded.join(''));
      break;
    }
    for (let i = 0; i + length <= padded.length; i++)
      runs.push(padded.slice(i, i + length).join(''));
  }
  return runs;
}

/** Words by id, in order of first appearance; first with feature ids, and with columns once these are settled. */
export class Lexicon {
  private readonly excluded: ReadonlySet<string>;
  readonly words: KnownWords = {
    forms: [],
    column: newInts(0),
    firstRun: newInts(1),
    run: newInts(0),
    runSquares: newFloats(0),
    idf: newFloats(0),
  };
  private readonly idOf = new Map<string, number>();
  /** Feature ids of runs; columns once these are settled. */
  private readonly runs = new Map<string, number>();
  private featureCount = 0;
  private columns: Columns | null = null;
  /** Texts are read several times: one array holds for each the number of its words and their ids. */
  private tokens = newInts(0);
  private tokensUsed = 0;
  private readonly startOf = new Map<string, number>();

  /** @param excluded forms of words that are read as if they were not there */
  constructor(excluded: ReadonlySet<string>) {
    this.excluded = excluded;
  }

  /** The number of features so far. */
  get features(): number {
    return this.featureCount;
  }

  /** Adds a feature, and gives its id. */
  nextFeature(): number {
    return this.featureCount++;
  }

  /** Word ids of a text in order, without excluded words. Valid until the next call. */
  wordsOf(text: string): Int32Array {
    const start = this.startOf.get(text) ?? this.tokenize(text);
    return this.tokens.subarray(start + 1, start + 1 + this.tokens[start]!);
  }

  /** Maps feature ids to columns. Words that appear later get only runs that are known. */
  settle(columnOf: Int32Array, columns: Columns): void {
    const { forms, column, firstRun, run } = this.words;
    let kept = 0;
    for (let word = 0, k = 0; word < forms.length; word++) {
      column[word] = columnOf[column[word]!]!;
      for (; k < firstRun[word + 1]!; k++) {
        run[kept] = columnOf[run[k]!]!;
        if (run[kept] !== -1) kept += 1;
      }
      firstRun[word + 1] = kept;
    }
    for (const [one, feature] of this.runs) this.runs.set(one, columnOf[feature]!);
    this.columns = columns;
    for (let word = 0; word < forms.length; word++) this.weigh(word, columns);
  }

  private tokenize(text: string): number {
    const forms = formsOf(text, this.excluded);
    const start = this.tokensUsed;
    this.tokens = withCapacity(this.tokens, start + 1 + forms.length, newInts);
    this.tokens[start] = forms.length;
    for (let i = 0; i < forms.length; i++)
      this.tokens[start + 1 + i] = this.idOf.get(forms[i]!) ?? this.addWord(forms[i]!);
    if (!this.columns) {
      this.tokensUsed += 1 + forms.length;
      this.startOf.set(text, start);
    }
    return start;
  }

  private addWord(form: string): number {
    const { words, columns } = this;
    const word = words.forms.length;
    words.forms.push(form);
    this.idOf.set(form, word);
    words.column = withCapacity(words.column, word + 1, newInts);
    words.column[word] = columns ? -1 : this.nextFeature();
    const runs = characterRuns(form)
      .map((run) => this.idOfRun(run))
      .filter((run) => run !== -1);
    const from = words.firstRun[word]!;
    words.run = withCapacity(words.run, from + runs.length, newInts);
    words.run.set(runs, from);
    words.firstRun = withCapacity(words.firstRun, word + 2, newInts);
    words.firstRun[word + 1] = from + runs.length;
    if (columns) this.weigh(word, columns);
    return word;
  }

  private idOfRun(run: string): number {
    let id = this.runs.get(run);
    if (id === undefined) {
      if (this.columns) return -1;
      this.runs.set(run, (id = this.nextFeature()));
    }
    return id;
  }

  /** Computes what is known of a word by its columns. */
  private weigh(word: number, { idf, vectors, rarest }: Columns): void {
    const { words } = this;
    words.runSquares = withCapacity(words.runSquares, word + 1, newFloats);
    words.idf = withCapacity(words.idf, word + 1, newFloats);
    let squares = 0;
    for (let k = words.firstRun[word]!; k < words.firstRun[word + 1]!; k++)
      squares += idf[words.run[k]!]! ** 2;
    words.runSquares[word] = squares;
    vectors.add(words.forms[word]!);
    const own = words.column[word]!;
    words.idf[word] = own === -1 ? rarest : idf[own]!;
  }
}

interface Columns {
  /** By column. */
  idf: Float64Array;
  vectors: WordEmbeddings;
  /** The idf of a word without a column. */
  rarest: number;
}
