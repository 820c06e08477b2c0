import { RowList, type FindingList } from './findings.js';
import {
  DOUBTFUL_ANSWERS,
  isEmptyPhrase,
  keyWithin,
  noAnswerKey,
  noAnswerKeys,
} from './noAnswer.js';
import type { PlannedRow, RowReader } from './rowReader.js';
import type { BackgroundKind, SheetSettings } from './settings.js';
import { countValues, type CategoryCount, type ProposedNoAnswer } from './valueCounts.js';
import { sheetCountsTexts } from '../wording/sheet.js';

const LONGEST_CATEGORY = 200;
const MOST_PROPOSED = 50;
/** Respondents who must have written a phrase before it is offered as saying nothing. */
const LEAST_REPEATED = 3;

export interface QuestionCount {
  wording: string;
  label: string;
  of: string;
  answered: number;
  noAnswer: number;
  notAsked: number;
  /** Answers that come in settled, with existing codes or decided to have none. */
  settled: number;
  proposed: ProposedNoAnswer[];
}

export interface VariableCount {
  name: string;
  kind: BackgroundKind;
  /** How many respondents have a value. */
  stated: number;
  different: number;
  /** Null for other kinds, and for more values than categories can be. */
  categories: CategoryCount[] | null;
}

/** Counts what rows import. */
export function countRows(
  settings: SheetSettings,
  reader: RowReader,
  labels: Readonly<Record<string, readonly string[]>>,
) {
  const values: ReturnType<typeof countValues>[] = [];
  const stated: number[] = [];
  const mentions: number[] = [];
  const codedNoAnswer = new RowList();
  const questions = reader.questions.map(({ wording }) => ({
    counts: { answered: 0, noAnswer: 0, notAsked: 0, settled: 0 },
    proposals: proposeNoAnswers(settings, wording),
  }));
  return {
    add(row: number, planned: PlannedRow): void {
      for (const [v, value] of planned.background.entries()) {
        if (value === null) continue;
        stated[v] = (stated[v] ?? 0) + 1;
        (values[v] ??= countValues()).add(String(value), row);
      }
      for (const [q, response] of planned.responses.entries()) {
        const { counts, proposals } = questions[q]!;
        if (!response) {
          counts.notAsked += 1;
          continue;
        }
        proposals.add(response.text);
        counts[response.noAnswer ? 'noAnswer' : 'answered'] += 1;
        if (response.noAnswer) {
          if (response.codes.length > 0) codedNoAnswer.add(row);
          continue;
        }
        if (response.settled) counts.settled += 1;
        for (const code of response.codes) mentions[code] = (mentions[code] ?? 0) + 1;
      }
    },
    questions: (): QuestionCount[] =>
      reader.questions.map((question, q) => ({
        ...question,
        ...questions[q]!.counts,
        proposed: questions[q]!.proposals.proposed(),
      })),
    codes: () => reader.codes.map((name, code) => ({ name, mentions: mentions[code] ?? 0 })),
    variables: (): VariableCount[] =>
      reader.variables.map(({ name, kind }, v) => {
        const { categories } = categoriesOf(name, kind, v) ?? { categories: null };
        return {
          name,
          kind,
          stated: stated[v] ?? 0,
          different: values[v]?.different() ?? 0,
          categories: categories?.some(({ value }) => value.length > LONGEST_CATEGORY)
            ? null
            : categories,
        };
      }),
    report({ notice }: FindingList): void {
      notice('coded_no_answer', sheetCountsTexts.responseSaysNothingBut, codedNoAnswer);
      for (const [v, { name, kind }] of reader.variables.entries()) {
        const { joined, rows } = categoriesOf(name, kind, v) ?? { joined: [], rows: new RowList() };
        const some = `${joined.slice(0, 6).join('; ')}${joined.length > 6 ? ' …' : ''}`;
        notice(
          'spellings',
          sheetCountsTexts.spelledSeveralWays(name, some, joins(name)),
          rows,
          name,
        );
      }
    },
  };

  function joins(name: string): boolean {
    return !settings.keepSpellings.includes(name);
  }

  function categoriesOf(name: string, kind: BackgroundKind, v: number) {
    return kind === 'category' ? (values[v]?.categories(joins(name), labels[name]) ?? null) : null;
  }
}

/** Gathers short responses to a question that say nothing, or may do. */
function proposeNoAnswers(settings: SheetSettings, question: string) {
  const listed = noAnswerKeys(settings.noAnswers);
  const doubtful = noAnswerKeys(DOUBTFUL_ANSWERS);
  const longest = Math.max(listed.longest, doubtful.longest);
  const despite = noAnswerKeys(
    settings.answersDespite.filter((one) => one.question === question).map((one) => one.text),
  );
  const found = new Map<string, { text: string; count: number; isKnown: boolean }>();
  return {
    add(text: string): void {
      if (text === '') return;
      const within = keyWithin(text, longest);
      const isKnown =
        within !== null && (within === '' || listed.keys.has(within) || doubtful.keys.has(within));
      if (!isKnown && !isEmptyPhrase(text)) return;
      const key = within ?? noAnswerKey(text);
      const known = found.get(key);
      if (known) known.count += 1;
      else found.set(key, { text: text.trim(), count: 1, isKnown });
    },
    proposed: (): ProposedNoAnswer[] =>
      [...found]
        .filter(([, { count, isKnown }]) => isKnown || count >= LEAST_REPEATED)
        .map(([key, { text, count }]) => {
          const says = key === '' || (listed.keys.has(key) && !despite.keys.has(key));
          return { text, count, counts: says ? ('no_answer' as const) : ('answer' as const) };
        })
        .sort((x, y) => y.count - x.count)
        .slice(0, MOST_PROPOSED),
  };
}
