import type { Report, ReportQuery } from '@yellow-thread/contract';
import {
  baseInWords,
  correctionWords,
  countsSentence,
  ruleNames,
} from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { StudyEntity, VariableEntity, type QuestionRow } from '../../database/index.js';
import { describeRule, findGroup } from '../../groups/index.js';
import { factsTexts } from '../../wording/report.js';

/** What stands above every table that leaves the study, so that it explains itself. */
export type Fact = [name: string, value: string | number];
/** One of a report: in words throughout, as a write-up keeps it. */
export type ReportFact = [name: string, value: string];

/** Study, date, base, filters, weighting and tests of a table. */
export async function readFacts(
  em: EntityManager,
  {
    studyId,
    question,
    query,
    report,
  }: { studyId: number; question: QuestionRow; query: ReportQuery; report: Report },
): Promise<ReportFact[]> {
  const { name } = await em.findOneOrFail(StudyEntity, studyId);
  const group = query.group ? await findGroup(em, studyId, query.group) : null;
  const facts: (ReportFact | null)[] = [
    [factsTexts.study, name],
    [
      factsTexts.question,
      query.questions === 'all' || query.by === 'question'
        ? factsTexts.allQuestions
        : question.wording,
    ],
    group && [
      factsTexts.restricted,
      `${group.name}: ${await describeRule(em, studyId, group.rule)}`,
    ],
    [factsTexts.counts, `${ruleNames[report.counts]}. ${countsSentence(report, String)}`],
    [factsTexts.columns, await acrossInWords(em, query)],
    [factsTexts.percent, baseInWords[report.base]],
    [factsTexts.weighted, report.weighted ? 'yes' : 'no'],
    report.columns.some(({ letter }) => letter !== null) || report.against === 'rest'
      ? [factsTexts.differences, differencesInWords(report)]
      : null,
    [factsTexts.intervals, factsTexts.wilson(Math.round(100 * report.level))],
    report.counts === 'estimated' ? null : [factsTexts.mentions, originsInWords(report.origins)],
    ...report.checked.map((check): ReportFact => [
      factsTexts.spotCheck(check.code),
      factsTexts.bulkReadApplied95(
        check.read,
        check.side,
        check.applies,
        check.interval.map((end) => end.toFixed(2)).join(' to '),
      ),
    ]),
    report.closed.length > 0 ? [factsTexts.codesClosed, closedInWords(report.closed)] : null,
    report.counts !== 'estimated' && report.estimatedFrom.length > 0
      ? [factsTexts.estimatedColumns, report.estimatedFrom.map(estimatesInWords).join(' ')]
      : null,
    ['Date', new Date().toISOString().slice(0, 10)],
  ];
  return facts.filter((fact) => fact !== null);
}

function originsInWords(origins: Report['origins']): string {
  const parts = [
    [origins.hand, factsTexts.codedHand],
    [origins.accepted, factsTexts.suggestedReadAccepted],
    [origins.bulk, factsTexts.acceptedBulk],
    [origins.import, factsTexts.importedSheet],
    [origins.words, factsTexts.codedSearchWords],
  ] as const;
  const said = parts.filter(([count]) => count > 0).map(([count, how]) => `${count} ${how}`);
  const others = factsTexts.answersTableCount(origins.notCounted);
  return [said.join(', ') || 'none', ...(origins.notCounted > 0 ? [others] : [])].join('; ');
}

/** Of which codes it was said that the rest does not mention them. */
const closedInWords = (closed: Report['closed']): string =>
  factsTexts.whatNoOneMentions(
    closed.map(({ code, how }) => `${code} (${closingWords[how]})`).join(', '),
  );

export const closingWords: Record<Report['closed'][number]['how'], string> = {
  suggestions: factsTexts.afterSuggestionsDecided,
  search: factsTexts.afterSearching,
};

/** What estimated columns beside counted ones are based on. */
export const estimatesInWords = ({
  sampled,
  answers,
  trainedAt,
}: Report['estimatedFrom'][number]) =>
  factsTexts.estimatedSharesIntervalsCounts(trainedAt?.slice(0, 10) ?? null, answers, sampled);

function differencesInWords({ test, against, level }: Report): string {
  if (test === 'off') return correctionWords.off;
  const with_ =
    against === 'rest' ? factsTexts.eachColumnEveryoneElse : factsTexts.columnsEachOther;
  return factsTexts.twoSided(with_, Math.round(100 * (1 - level)), correctionWords[test]);
}

const acrossWords: Record<string, string> = {
  none: 'total',
  question: 'questions',
  groups: 'groups',
  wave: 'waves',
  coder: 'coders',
  respondent: 'respondents',
};

async function acrossInWords(em: EntityManager, { by }: ReportQuery): Promise<string> {
  const known = acrossWords[by];
  if (known) return known;
  const names = [];
  for (const id of by.split(','))
    names.push((await em.findOneOrFail(VariableEntity, Number(id))).name);
  return names.join(', broken down by ');
}
