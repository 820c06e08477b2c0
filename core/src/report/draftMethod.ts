import { inWords, isOwnReading } from '../agreement/index.js';
import { LOW_BASE, type DraftAgreement, type DraftInput, type DraftTable } from './draftInput.js';
import { listOf, paragraph, text, type DraftNode } from './draftNode.js';
import type { FigureFormat } from './figures.js';
import { keyed } from './redraft.js';

const plural = (count: string, one: string, many = `${one}s`) =>
  `${count} ${count === '1' ? one : many}`;

function agreed(one: DraftAgreement, { count, percent }: FigureFormat): string {
  const { label, reader, drawnFrom, sameSets, kappa, interval, alphaOfSets } = one;
  const ends = interval?.map((end) => Math.min(1, Math.max(-1, end)).toFixed(2)).join(' to ');
  const coefficients = [
    ...(kappa === null
      ? []
      : [
          `Cohen’s kappa over all codes is ${kappa.toFixed(2)}${ends ? ` (95% interval ${ends})` : ''}`,
        ]),
    ...(alphaOfSets === null
      ? []
      : [`Krippendorff’s alpha of the sets of codes (MASI distance) is ${alphaOfSets.toFixed(2)}`]),
  ];
  return [
    `${label}: ${count(sameSets.n)} of ${count(drawnFrom)} settled answers, drawn at random, were coded again by ${isOwnReading(one) ? 'the same person' : reader} without the first codes in view;`,
    `${count(sameSets.count)} (${percent(sameSets.count / sameSets.n, sameSets.n)}) got exactly the same codes both times${coefficients.length > 0 ? `; ${inWords(coefficients)}` : ''}.`,
  ].join(' ');
}

/** A sentence of a table, which says of which where there are several. */
const saidOf =
  (tables: readonly DraftTable[]) =>
  ({ label }: DraftTable, sentence: string): string =>
    tables.length > 1 ? `${label}: ${sentence}` : sentence;

const listed = new Intl.ListFormat('en');

/** How it was coded, checked and counted. */
export function method({ tables, coders, agreement, format }: DraftInput): DraftNode[] {
  const { count } = format;
  const of = saidOf(tables);
  const sentences = [
    `${plural(count(coders), 'person', 'people')} coded.`,
    ...new Set(
      tables.flatMap((table) => [
        ...(table.counts === 'estimated' ? [] : [of(table, originSentence(table, count))]),
        ...(table.assisted > 0
          ? [
              of(
                table,
                `${plural(count(table.assisted), 'answer')} ${table.assisted === 1 ? 'was' : 'were'} read with the models’ suggestions in view.`,
              ),
            ]
          : []),
        ...closedSentences(table).map((sentence) => of(table, sentence)),
        ...table.checked.map((check) => of(table, checkSentence(check, count))),
      ]),
    ),
    ...agreement.map((one) => agreed(one, format)),
    'A person counts once in a code and once in a theme, however often they mention it.',
    ...new Set(
      tables.map(
        ({ base, weighted }) =>
          `Percentages are of ${base}${weighted ? '; they are weighted, numbers of people are not' : ''}.`,
      ),
    ),
    ...new Set(tables.flatMap(({ test }) => (test ? [`Differences are tested: ${test}.`] : []))),
  ];
  return [keyed('method', paragraph(text(sentences.join(' '))))];
}

type Count = FigureFormat['count'];

function originSentence({ origins }: DraftTable, count: Count): string {
  const parts = [
    [origins.hand, 'coded by hand'],
    [origins.accepted, 'suggested by a trained model, read and accepted'],
    [origins.bulk, 'accepted in bulk'],
    [origins.import, 'imported with the sheet'],
    [origins.words, 'coded by a search for words'],
  ] as const;
  const told = parts.filter(([many]) => many > 0);
  const all = parts.reduce((sum, [many]) => sum + many, 0);
  if (told.length === 0) return 'No mention is counted yet.';
  if (told.length === 1)
    return all === 1
      ? `The one mention counted was ${told[0]![1]}.`
      : `All ${count(all)} mentions counted were ${told[0]![1]}.`;
  return `Of the ${count(all)} mentions counted, ${listed.format(told.map(([many, how]) => `${count(many)} ${many === 1 ? 'was' : 'were'} ${how}`))}.`;
}

function closedSentences({ closed }: DraftTable): string[] {
  const by = (how: DraftTable['closed'][number]['how']) => closed.filter((one) => one.how === how);
  const names = (some: DraftTable['closed']) => listed.format(some.map(({ code }) => code));
  const [suggested, searched] = [by('suggestions'), by('search')];
  const expected = suggested.reduce((sum, one) => sum + one.expected, 0);
  return [
    ...(suggested.length > 0
      ? [
          `For ${names(suggested)}, every suggestion was decided, and answers without one count as not mentioning ${suggested.length === 1 ? 'it' : 'them'}; the models expected ${expected.toFixed(1)} mentions among these.`,
        ]
      : []),
    ...(searched.length > 0
      ? [
          `${names(searched)} had no model: answers were searched for ${searched.length === 1 ? 'it' : 'them'}, and the rest counts as not mentioning ${searched.length === 1 ? 'it' : 'them'}.`,
        ]
      : []),
  ];
}

const checkSentence = (
  { code, side, read, applies, interval }: DraftTable['checked'][number],
  count: Count,
): string =>
  `Of what was ${side} in bulk for ${code}, ${plural(count(read), 'answer')} drawn at random ${read === 1 ? 'was' : 'were'} read: the code applied to ${count(applies)} (95% interval of the share ${interval.map((end) => end.toFixed(2)).join(' to ')}), before anything was corrected.`;

/** What the figures cannot bear. */
export function limits({ tables, coders, agreement, format: { count } }: DraftInput): DraftNode[] {
  const said: string[] = [];
  for (const table of tables) {
    const [total, ...others] = table.table.columns;
    if (!total) continue;
    const of = (sentence: string) => said.push(`${table.label}: ${sentence}`);
    if (table.counts === 'settled' && !table.isFinished && total.settled < total.answered)
      of(
        `${count(total.answered - total.settled)} of ${count(total.answered)} answers are not settled.${table.isRandom ? '' : ' Those that are were not drawn at random, so that the rest may differ from them.'}`,
      );
    if (table.table.rows.some(({ cells }) => cells.some(({ undecided }) => undecided > 0)))
      of(
        'figures with “at least” can still rise: it is not decided for everybody whether they mention these.',
      );
    const few = others.filter(({ counted }) => counted < LOW_BASE).map((column) => column.label);
    if (few.length > 0) of(`fewer than ${LOW_BASE} answers in ${listed.format(few)}.`);
    if (table.origins.bulk > 0 && !table.checked.some(({ side }) => side === 'accepted'))
      of(
        'what was accepted in bulk has not been spot-checked, so it is not known how much of it is right.',
      );
  }
  for (const { label, low } of agreement)
    if (low.length > 0)
      said.push(
        `${label}: the two readings agree too little on ${inWords(low)} to rest a finding on ${low.length === 1 ? 'it' : 'them'} alone.`,
      );
  if (agreement.length === 0)
    said.push(
      coders > 1
        ? 'How far the coders agree has not been measured here.'
        : 'One person coded, so that there is no second reading to compare with.',
    );
  else if (agreement.every(isOwnReading))
    said.push(
      'The second reading is by the person who coded first: it shows how steady they are, not how far two people agree.',
    );
  return [keyed('limits', listOf(said))];
}
