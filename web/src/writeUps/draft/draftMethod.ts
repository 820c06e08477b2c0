import { listNames, isOwnReading } from '@yellow-thread/core/agreement';
import { LOW_BASE, type DraftAgreement, type DraftInput, type DraftTable } from './draftInput.js';
import { listOf, paragraph, text, type DraftNode } from './draftNode.js';
import type { FigureFormat } from '@yellow-thread/core/report';
import { keyed } from './redraft.js';
import { draftMethodTexts } from './texts.js';

const plural = (count: string, one: string, many = `${one}s`) =>
  `${count} ${count === '1' ? one : many}`;

function agreed(one: DraftAgreement, { count, percent }: FigureFormat): string {
  const { label, reader, drawnFrom, drawn, sameSets, kappa, interval, alphaOfSets } = one;
  const ends = interval?.map((end) => Math.min(1, Math.max(-1, end)).toFixed(2)).join(' to ');
  const coefficients = [
    ...(kappa === null ? [] : [draftMethodTexts.cohensKappaOverAll(kappa.toFixed(2), ends)]),
    ...(alphaOfSets === null
      ? []
      : [draftMethodTexts.krippendorffsAlphaSetsCodes(alphaOfSets.toFixed(2))]),
  ];
  return [
    draftMethodTexts.codedAgain({
      label,
      coded: count(sameSets.n),
      drawnFrom: count(drawnFrom),
      drawn: drawn !== null && drawn > sameSets.n ? count(drawn) : null,
      reader: isOwnReading(one) ? draftMethodTexts.samePerson : reader,
    }),
    draftMethodTexts.gotExactlySameCodes(
      count(sameSets.count),
      percent(sameSets.count / sameSets.n, sameSets.n),
      coefficients.length,
      listNames(coefficients),
    ),
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
                draftMethodTexts.readModelsSuggestionsView(
                  plural(count(table.assisted), 'answer'),
                  table.assisted,
                ),
              ),
            ]
          : []),
        ...closedSentences(table).map((sentence) => of(table, sentence)),
        ...table.checked.map((check) => of(table, checkSentence(check, count))),
      ]),
    ),
    ...agreement.map((one) => agreed(one, format)),
    draftMethodTexts.personCountsOnceCode,
    ...new Set(tables.map(({ base, weighted }) => draftMethodTexts.percentages(base, weighted))),
    ...new Set(
      tables.flatMap(({ test }) => (test ? [draftMethodTexts.differencesTested(test)] : [])),
    ),
  ];
  return [keyed('method', paragraph(text(sentences.join(' '))))];
}

type Count = FigureFormat['count'];

function originSentence({ origins }: DraftTable, count: Count): string {
  const parts = [
    [origins.hand, draftMethodTexts.codedHand],
    [origins.accepted, draftMethodTexts.suggestedTrainedModelRead],
    [origins.bulk, draftMethodTexts.acceptedBulk],
    [origins.import, draftMethodTexts.importedSheet],
    [origins.words, draftMethodTexts.codedSearchWords],
  ] as const;
  const told = parts.filter(([many]) => many > 0);
  const all = parts.reduce((sum, [many]) => sum + many, 0);
  if (told.length === 0) return draftMethodTexts.noMentionCountedYet;
  if (told.length === 1)
    return all === 1
      ? draftMethodTexts.oneMentionCounted(told[0]![1])
      : draftMethodTexts.allMentionsCounted(count(all), told[0]![1]);
  return draftMethodTexts.mentionsCounted(
    count(all),
    listed.format(told.map(([many, how]) => draftMethodTexts.told(many, count(many), how))),
  );
}

function closedSentences({ closed }: DraftTable): string[] {
  const by = (how: DraftTable['closed'][number]['how']) => closed.filter((one) => one.how === how);
  const names = (some: DraftTable['closed']) => listed.format(some.map(({ code }) => code));
  const [suggested, searched] = [by('suggestions'), by('search')];
  const expected = suggested.reduce((sum, one) => sum + one.expected, 0);
  return [
    ...(suggested.length > 0
      ? [
          draftMethodTexts.everySuggestionDecidedAnswers(
            names(suggested),
            suggested.length,
            expected.toFixed(1),
          ),
        ]
      : []),
    ...(searched.length > 0
      ? [draftMethodTexts.noModelAnswersSearched(names(searched), searched.length)]
      : []),
  ];
}

const checkSentence = (
  { code, side, read, applies, interval }: DraftTable['checked'][number],
  count: Count,
): string =>
  draftMethodTexts.whatBulkDrawnRandom({
    side,
    code,
    answers: plural(count(read), 'answer'),
    read,
    count: count(applies),
    interval: interval.map((end) => end.toFixed(2)).join(' to '),
  });

/** What the figures cannot bear. */
export function limits({ tables, coders, agreement, format: { count } }: DraftInput): DraftNode[] {
  const said: string[] = [];
  for (const table of tables) {
    const [total, ...others] = table.table.columns;
    if (!total) continue;
    const of = (sentence: string) => said.push(`${table.label}: ${sentence}`);
    if (table.counts === 'settled' && !table.isFinished && total.settled < total.answered)
      of(
        draftMethodTexts.answersSettled(
          count(total.answered - total.settled),
          count(total.answered),
          table.isRandom,
        ),
      );
    if (table.table.rows.some(({ cells }) => cells.some(({ undecided }) => undecided > 0)))
      of(draftMethodTexts.figuresLeastCanStill);
    const few = others.filter(({ counted }) => counted < LOW_BASE).map((column) => column.label);
    if (few.length > 0) of(draftMethodTexts.fewerAnswers(LOW_BASE, listed.format(few)));
    if (table.origins.bulk > 0 && !table.checked.some(({ side }) => side === 'accepted'))
      of(draftMethodTexts.whatAcceptedBulkSpot);
  }
  for (const { label, low } of agreement)
    if (low.length > 0)
      said.push(draftMethodTexts.twoReadingsAgreeToo(label, listNames(low), low.length));
  if (agreement.length === 0)
    said.push(coders > 1 ? draftMethodTexts.howFarCodersAgree : draftMethodTexts.onePersonCodedNo);
  else if (agreement.every(isOwnReading)) said.push(draftMethodTexts.secondReadingPersonWho);
  return [keyed('limits', listOf(said))];
}
