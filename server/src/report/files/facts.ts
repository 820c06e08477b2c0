import type { Report, ReportQuery } from '@yellow-thread/contract';
import { baseWords, correctionWords, countsSentence, ruleNames } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import { StudyEntity, VariableEntity, type QuestionRow } from '../../database/index.js';
import { describeRule, findGroup } from '../../groups/index.js';

/** What stands above every table that leaves the study, so that it explains itself. */
export type Fact = [name: string, value: string];

/** Study, date, base, filters, weighting and tests of a table. */
export async function readFacts(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  query: ReportQuery,
  report: Report,
): Promise<Fact[]> {
  const { name } = await em.findOneOrFail(StudyEntity, studyId);
  const group = query.group ? await findGroup(em, studyId, query.group) : null;
  const facts: (Fact | null)[] = [
    ['Study', name],
    [
      'Question',
      query.questions === 'all' || query.by === 'question' ? 'all questions' : question.wording,
    ],
    group && ['Restricted to', `${group.name}: ${await describeRule(em, studyId, group.rule)}`],
    ['Counts', `${ruleNames[report.counts]}. ${countsSentence(report, String)}`],
    ['Columns', await acrossInWords(em, query)],
    ['Percent of', baseWords[report.base]],
    ['Weighted', report.weighted ? 'yes' : 'no'],
    report.columns.some(({ letter }) => letter !== null) || report.against === 'rest'
      ? ['Differences', differencesInWords(report)]
      : null,
    ['Intervals', `${Math.round(100 * report.level)}%, Wilson`],
    report.counts === 'estimated' ? null : ['Mentions', originsInWords(report.origins)],
    ...report.checked.map((check): Fact => [
      `Spot check of ${check.code}`,
      `${check.read} ${check.side} in bulk were read, and it applied to ${check.applies} (95% interval ${check.interval.map((end) => end.toFixed(2)).join(' to ')}), before anything was corrected`,
    ]),
    report.closed.length > 0 ? ['Codes closed', closedInWords(report.closed)] : null,
    report.counts !== 'estimated' && report.estimatedFrom.length > 0
      ? ['Estimated columns', report.estimatedFrom.map(estimatesInWords).join(' ')]
      : null,
    ['Date', new Date().toISOString().slice(0, 10)],
  ];
  return facts.filter((fact) => fact !== null);
}

function originsInWords(origins: Report['origins']): string {
  const parts = [
    [origins.hand, 'coded by hand'],
    [origins.accepted, 'suggested, read and accepted'],
    [origins.bulk, 'accepted in bulk'],
    [origins.import, 'imported with a sheet'],
    [origins.words, 'coded by a search for words'],
  ] as const;
  const said = parts.filter(([count]) => count > 0).map(([count, how]) => `${count} ${how}`);
  const others = `${origins.notCounted} on answers that this table does not count`;
  return [said.join(', ') || 'none', ...(origins.notCounted > 0 ? [others] : [])].join('; ');
}

/** Of which codes it was said that the rest does not mention them. */
const closedInWords = (closed: Report['closed']): string =>
  `What no one mentions was decided at once for ${closed
    .map(({ code, how }) => `${code} (${closingWords[how]})`)
    .join(', ')}`;

export const closingWords: Record<Report['closed'][number]['how'], string> = {
  suggestions: 'after its suggestions were decided',
  search: 'after searching for it',
};

/** What estimated columns beside counted ones rest on. */
export const estimatesInWords = ({
  sampled,
  answers,
  trainedAt,
}: Report['estimatedFrom'][number]) =>
  `Estimated shares, with their intervals, are not counts: ${trainedAt ? `models of ${trainedAt.slice(0, 10)} read all ${answers} answers, and what they say is corrected by ${sampled} that were drawn at random and read (difference estimator)` : `they rest on ${sampled} of ${answers} answers that were drawn at random and read`}.`;

function differencesInWords({ test, against, level }: Report): string {
  if (test === 'off') return correctionWords.off;
  const with_ = against === 'rest' ? 'each column with everyone else' : 'columns with each other';
  return `${with_}, two-sided at ${Math.round(100 * (1 - level))}%, ${correctionWords[test]}`;
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
