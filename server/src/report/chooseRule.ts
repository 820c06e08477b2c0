import type { BaseKind, CountingRule, Report, ReportQuery } from '@yellow-thread/contract';
import { fullBitset, has, isEmpty, type Bitset } from '@yellow-thread/core/groups';
import { basesOf, COUNTING_RULES, defaultRule, FEWEST_SAMPLED } from '@yellow-thread/core/report';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { People, QuestionMaterial } from '../groups/index.js';
import type { PlacedColumn } from './columns.js';
import { readSources, whyNotEstimated } from './estimates.js';
import { isFinished } from './tableMaterial.js';
import { chooseRuleTexts } from '../wording/report.js';

interface Asked {
  query: Pick<ReportQuery, 'counts' | 'by' | 'questions'>;
  columns: readonly PlacedColumn[];
  codeIds: readonly string[];
  /** The questions that the table is counted from. */
  parts: readonly QuestionMaterial[];
  restriction: Bitset | null;
}

/** What a table counts, and why not by another rule. */
export interface ChosenRule {
  counts: CountingRule;
  rules: Report['rules'];
  isFinished: boolean;
  /** What shares can be estimated from, by question. */
  sources: Awaited<ReturnType<typeof readSources>>['sources'];
  /** Why nothing can be estimated; null where it can. */
  why: string | null;
  /** Why the rule that was asked for is not taken; null where it is. */
  insteadOf: string | null;
}

/** The rule that is asked for where the table can be counted so, or else the strongest that holds. */
export async function chooseRule(
  em: EntityManager,
  people: People,
  { query, columns, codeIds, parts, restriction }: Asked,
): Promise<ChosenRule> {
  const never = whyNotEstimated(query);
  const read: Awaited<ReturnType<typeof readSources>> = never
    ? { sources: new Map(), why: never }
    : await readSources(em, people, parts, codeIds);
  // of several questions, those with a sample are estimated
  const noEstimates = read.sources.size > 0 ? null : read.why;
  const members = restriction ?? fullBitset(people.ids.length);
  const finished = columns.every(({ material }) => isFinished(material, members));
  const isByCoder = query.by === 'coder';
  const whyNot: Record<CountingRule, string | null> = {
    decided: isByCoder ? chooseRuleTexts.whatOnePersonCoded : null,
    estimated: noEstimates,
    sample: whyNoSample(query, parts),
    settled: null,
  };
  // a group needs as many of the sample as any column
  const isEnough = [...read.sources.values()].every(
    ({ sampled, people: whose }) =>
      !restriction || sampled.filter((at) => has(restriction, whose[at]!)).length >= FEWEST_SAMPLED,
  );
  const hasSample = noEstimates === null && read.why === null && isEnough;
  const usual = isByCoder ? 'settled' : defaultRule({ isFinished: finished, hasSample });
  const asked = query.counts ?? usual;
  const refused = whyNot[asked];
  return {
    counts: refused ? usual : asked,
    rules: COUNTING_RULES.map((rule) => ({ rule, why: whyNot[rule] })),
    isFinished: finished,
    ...read,
    insteadOf: refused,
  };
}

function whyNoSample(
  { questions }: Pick<ReportQuery, 'questions'>,
  parts: readonly QuestionMaterial[],
): string | null {
  if (questions === 'all' && parts.length > 1) return chooseRuleTexts.eachQuestionRandomSample;
  if (parts.every(({ drawn }) => drawn === 0)) return chooseRuleTexts.noRandomSampleDrawn;
  return parts.every(({ sampled }) => isEmpty(sampled))
    ? chooseRuleTexts.noAnswerRandomSample
    : null;
}

/** What percentages are out of: as asked where the rule has such a base, or else the people whose answers count. */
export function baseFor(
  { counts, isFinished }: Pick<ChosenRule, 'counts' | 'isFinished'>,
  asked: BaseKind | undefined,
): BaseKind {
  const bases = basesOf(counts, isFinished);
  return asked && bases.includes(asked) ? asked : bases[0];
}
