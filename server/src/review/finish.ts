import {
  reportQuery,
  type CloseCodes,
  type CodeClosing,
  type CodeLeft,
  type WhatIsLeft,
} from '@yellow-thread/contract';
import { countOf, countOfBoth, has, subtract, type Bitset } from '@yellow-thread/core/groups';
import { FEWEST_EXAMPLES } from '@yellow-thread/core/learning';
import { estimateOf } from '@yellow-thread/core/report';
import { medianPace, modelVerdict } from '@yellow-thread/core/review';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  CodeEntity,
  codesInUse,
  findClosings,
  isoTime,
  makeChange,
  row,
  rows,
  type QuestionRow,
} from '../database/index.js';
import { readQuestionAnswers } from '../coding/index.js';
import { readMaterial, readPeople, type QuestionMaterial } from '../groups/index.js';
import { currentRun } from '../learning/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { makeReport } from '../report/index.js';
import { finishTexts } from '../wording/review.js';

/** Where the answers to a question stand, and what the ways to its end would take. */
export async function whatIsLeft(
  em: EntityManager,
  { studyId, accountId }: Maker,
  question: QuestionRow,
): Promise<WhatIsLeft> {
  const people = await readPeople(em, studyId);
  const material = await readMaterial(em, people, question.id);
  const { answered, settled, decided, byModel } = material;
  const run = await currentRun(em, question.id);
  const open = subtract(answered, decided);
  const { assisted } = await row<{ assisted: number }>(
    em,
    `select count(*)::int as assisted from response r where r.question_id = :id and not r.no_answer
       and exists (select 1 from settlement t where t.response_id = r.id)
       and not exists (
         select 1 from settlement t where t.response_id = r.id and not t.assisted)`,
    { id: question.id },
  );
  const { sampleOpen } = await row<{ sampleOpen: number }>(
    em,
    `select count(distinct m.response_id)::int as "sampleOpen" from sample s
     join sample_member m on m.sample_id = s.id join response r on r.id = m.response_id
     where s.question_id = :id and not r.no_answer
       and not exists (select 1 from settlement t where t.response_id = r.id)`,
    { id: question.id },
  );
  return {
    answered: countOf(answered),
    settled: countOfBoth(settled, answered),
    assisted,
    decided: countOf(subtract(decided, settled)),
    byModel: countOf(byModel),
    open: countOf(open) - countOf(byModel),
    openWordings: await countWordings(em, question.id, material, open),
    sampleOpen,
    isFinished: countOf(answered) > 0 && countOf(open) === 0,
    hasModels: run?.codes.some(({ state }) => state !== 'too_few') ?? false,
    codes: await codesLeft(em, question.id, material, run),
    fewestExamples: FEWEST_EXAMPLES,
    pace: await readPace(em, studyId, accountId),
    ...(await widestEstimate(em, studyId, question)),
    model: await readModelDecision(em, question.id),
  };
}

type Run = Awaited<ReturnType<typeof currentRun>>;

async function countWordings(
  em: EntityManager,
  questionId: number,
  { responseOf }: QuestionMaterial,
  open: Bitset,
): Promise<number> {
  const { first, indexOf } = await readQuestionAnswers(em, questionId);
  const wordings = new Set<number>();
  responseOf.forEach((id, i) => {
    if (has(open, i)) wordings.add(first[indexOf(id)]!);
  });
  return wordings.size;
}

/** Suggestions of which a model is this unsure are worth reading one by one. */
const UNSURE = [0.2, 0.8] as const;

async function codesLeft(
  em: EntityManager,
  questionId: number,
  { rowOf, settled, answered }: QuestionMaterial,
  run: Run,
): Promise<CodeLeft[]> {
  const open = await rows<{ codeId: string; open: number; unsure: number }>(
    em,
    `select code_id as "codeId", count(*)::int as open,
       (count(*) filter (where probability between ${UNSURE[0]} and ${UNSURE[1]}))::int as unsure
     from open_suggestion where question_id = :questionId group by 1`,
    { questionId },
  );
  const closings = await rows<{ codeId: string } & NonNullable<CodeLeft['closed']>>(
    em,
    `select k.code_id as "codeId", k.how, a.name as by, ${isoTime('k.closed_at')} as at,
       (select count(*)::int from response r where r.question_id = k.question_id and not r.no_answer
         and (r.id > k.last_response_id or r.changed_at > k.closed_at)
         and not exists (select 1 from settlement t where t.response_id = r.id)) as "newAnswers"
     from code_closing k join account a on a.id = k.closed_by where k.question_id = :questionId`,
    { questionId },
  );
  const settledAnswers = countOfBoth(settled, answered);
  return (await codesInUse(em, questionId)).map((codeId): CodeLeft => {
    const { mentioned, undecided } = rowOf(codeId, 'decided');
    const trained = run?.codes.find((code) => code.codeId === codeId);
    const model = trained && trained.state !== 'too_few' ? trained : null;
    const suggested = open.find((one) => one.codeId === codeId);
    const closing = closings.find((one) => one.codeId === codeId);
    const left = undecided ? countOf(undecided) : 0;
    const without = Math.max(0, left - (suggested?.open ?? 0));
    return {
      codeId,
      open: suggested?.open ?? 0,
      unsure: suggested?.unsure ?? 0,
      undecided: left,
      expected: model && expectedAmong(model.unsuggested, without, run!, model.suggested),
      examples: settledAnswers === 0 ? 0 : countOfBoth(mentioned, settled),
      verdict: model && modelVerdict(model.quality, model.state === 'weak'),
      closed: closing
        ? { how: closing.how, by: closing.by, at: closing.at, newAnswers: closing.newAnswers }
        : null,
    };
  });
}

/** Of what a model expected among all unlikely answers, the part that falls to those that are left. */
function expectedAmong(
  unsuggested: number,
  left: number,
  { answers, settled }: NonNullable<Run>,
  suggested: number,
): number {
  const unlikely = answers - settled - suggested;
  return unlikely > 0 ? unsuggested * Math.min(1, left / unlikely) : 0;
}

const LAST = 50;

/** How long an answer and a decision take a person, by their last ones. */
async function readPace(
  em: EntityManager,
  studyId: number,
  accountId: number,
): Promise<WhatIsLeft['pace']> {
  const settled = await rows<{ at: number }>(
    em,
    `select distinct (extract(epoch from t.settled_at) * 1000)::float as at
     from settlement t join response r on r.id = t.response_id join question q on q.id = r.question_id
     where q.study_id = :studyId and t.coder_id = :accountId order by at desc limit ${LAST}`,
    { studyId, accountId },
  );
  const decided = await rows<{ at: number }>(
    em,
    `select distinct (extract(epoch from s.decided_at) * 1000)::float as at
     from suggestion s join question q on q.id = s.question_id
     where q.study_id = :studyId and s.decided_by = :accountId and s.state <> 'open' and not s.bulk
       and not exists (select 1 from settlement t where t.response_id = s.response_id)
     order by at desc limit ${LAST}`,
    { studyId, accountId },
  );
  return {
    answer: medianPace(settled.map(({ at }) => at)),
    decision: medianPace(decided.map(({ at }) => at)),
  };
}

/** How certain one would be in stopping now: the estimate with the widest interval among the themes. */
async function widestEstimate(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
): Promise<Pick<WhatIsLeft, 'widest' | 'notEstimated'>> {
  const report = await makeReport(em, {
    studyId,
    question,
    query: reportQuery.parse({ counts: 'estimated', rows: 'themes' }),
    within: null,
  });
  if (report.counts !== 'estimated') return { widest: null, notEstimated: report.notEstimated };
  const shares = report.rows.flatMap(({ name, cells: [cell] }) => {
    if (!cell?.estimated) return [];
    const { value, interval } = estimateOf(cell.estimated);
    return [{ name, share: value, interval, width: interval[1] - interval[0] }];
  });
  const widest = shares.toSorted((x, y) => y.width - x.width)[0];
  return {
    widest: widest ? { name: widest.name, share: widest.share, interval: widest.interval } : null,
    notEstimated: widest ? null : report.notEstimated,
  };
}

async function readModelDecision(
  em: EntityManager,
  questionId: number,
): Promise<WhatIsLeft['model']> {
  const [found] = await rows<{ by: string; at: string; drawn: number; read: number }>(
    em,
    `select a.name as by, ${isoTime('d.decided_at')} as at, count(m.response_id)::int as drawn,
       (count(m.response_id) filter (where exists (
         select 1 from settlement t where t.response_id = m.response_id)))::int as read
     from model_decision d join account a on a.id = d.decided_by
     left join sample_member m on m.sample_id = d.sample_id
     where d.question_id = :questionId group by a.name, d.decided_at`,
    { questionId },
  );
  return found
    ? { by: found.by, at: found.at, check: { drawn: found.drawn, read: found.read } }
    : null;
}

/**
 * Closes codes: answers of which it is not known whether they mention one, do not. It stays so through later trainings;
 * answers that come later are open again.
 *
 * @returns how many were closed
 * @throws Problem not_found, suggestions_open where some of a code's are still to be decided
 */
export async function closeCodes(
  em: EntityManager,
  maker: Maker,
  question: QuestionRow,
  { codes }: CloseCodes,
): Promise<number> {
  const people = await readPeople(em, maker.studyId);
  const left = await codesLeft(
    em,
    question.id,
    await readMaterial(em, people, question.id),
    await currentRun(em, question.id),
  );
  return em.transactional(async (tx) => {
    await rows(tx, 'select id from question where id = :id for no key update', { id: question.id });
    const names = await namesOf(tx, maker.studyId);
    const { last } = await row<{ last: number | null }>(
      tx,
      'select max(id) as last from response where question_id = :id',
      { id: question.id },
    );
    const standing = await findClosings(tx, 'k.question_id = :questionId', {
      questionId: question.id,
    });
    const closedAt = new Date().toISOString();
    const closings = codes.map(({ codeId, how }): CodeClosing => {
      const code = left.find((one) => one.codeId === codeId);
      const name = names.get(codeId);
      if (!code || name === undefined) throw problems.notFound('code');
      if (code.open > 0) throw problems.suggestionsOpen(name, code.open);
      return {
        studyId: maker.studyId,
        questionId: question.id,
        codeId,
        how,
        expected: code.expected ?? 0,
        lastResponseId: last ?? 0,
        closedBy: maker.accountId,
        closedAt,
      };
    });
    const before = (codeId: string) => standing.find((one) => one.codeId === codeId);
    await makeChange(tx, {
      ...maker,
      summary:
        closings.length === 1
          ? finishTexts.closing(names.get(closings[0]!.codeId))
          : finishTexts.closingCodes(closings.length),
      diff: {
        code_closing: {
          added: closings.filter(({ codeId }) => !before(codeId)),
          updated: closings.flatMap((to) => {
            const from = before(to.codeId);
            return from ? [{ from, to }] : [];
          }),
          removed: [],
        },
      },
    });
    return closings.length;
  });
}

/** Opens a closed code again: whatever was not decided of it one by one is open. */
export async function reopenCode(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  codeId: string,
): Promise<void> {
  await em.transactional(async (tx) => {
    const [closing] = await findClosings(
      tx,
      'k.question_id = :questionId and k.code_id = :codeId',
      { questionId, codeId },
    );
    if (!closing) return;
    const name = (await namesOf(tx, maker.studyId)).get(codeId);
    await makeChange(tx, {
      ...maker,
      summary: finishTexts.openingAgain(name),
      diff: { code_closing: { added: [], updated: [], removed: [closing] } },
    });
  });
}

async function namesOf(em: EntityManager, studyId: number): Promise<Map<string, string>> {
  const codes = await em.find(CodeEntity, { studyId });
  return new Map(codes.map(({ id, name }) => [id, name]));
}
