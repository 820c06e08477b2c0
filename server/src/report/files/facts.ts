import type { Report, ReportQuery } from '@yellow-thread/contract';
import { baseWords, correctionWords } from '@yellow-thread/core/report';
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
  const { origins, checked } = report;
  const facts: (Fact | null)[] = [
    ['Study', name],
    [
      'Question',
      query.questions === 'all' || query.by === 'question' ? 'all questions' : question.wording,
    ],
    group && ['Restricted to', `${group.name}: ${await describeRule(em, studyId, group.rule)}`],
    ['Columns', await acrossInWords(em, query)],
    ['Percent of', baseWords[report.base]],
    ['Weighted', report.weighted ? 'yes' : 'no'],
    report.columns.some(({ letter }) => letter !== null) || report.against === 'rest'
      ? ['Differences', differencesInWords(report)]
      : null,
    ['Intervals', `${Math.round(100 * report.level)}%, Wilson`],
    [
      'Counted',
      `${origins.hand} mentions coded by hand, ${origins.accepted} suggestions accepted one by one, ${origins.bulk} accepted in bulk, ${origins.import} that came with a sheet, ${origins.words} coded by words looked for; ${origins.waiting} not counted yet`,
    ],
    checked && [
      'Spot checks of the bulk',
      `${checked.read} read, ${checked.applies} right (95% interval ${checked.interval.map((end) => end.toFixed(2)).join(' to ')})`,
    ],
    report.estimatedFrom.length > 0
      ? ['Estimated', report.estimatedFrom.map(estimatesInWords).join(' ')]
      : null,
    ['Date', new Date().toISOString().slice(0, 10)],
  ];
  return facts.filter((fact) => fact !== null);
}

/** What estimated shares rest on. */
export const estimatesInWords = ({
  sampled,
  answers,
  trainedAt,
}: Report['estimatedFrom'][number]) =>
  `Estimated shares, with 95% intervals, are no counts: models of ${trainedAt.slice(0, 10)} read all ${answers} answers, and how far they were off on ${sampled} drawn at random puts them right (difference estimator).`;

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
  return names.join(', within it ');
}
