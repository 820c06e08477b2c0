import type {
  CheckSide,
  ThresholdMove,
  Review,
  ReviewList,
  SuggestionPage,
} from '@yellow-thread/contract';
import { countOf } from '@yellow-thread/core/groups';
import { modelVerdict } from '@yellow-thread/core/review';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  row,
  rows,
  withinGroup,
  ReviewThresholdEntity,
  CodeClosingEntity,
} from '../database/index.js';
import { readAnswers } from '../coding/index.js';
import { readMaterial, readPeople } from '../groups/index.js';
import { readUnseen, currentRun } from '../learning/index.js';
import { problems } from '../wording/problems.js';
import { reviewTexts } from '../wording/review.js';

/** The suggestions of a code and question that are shown: open ones and those decided. */
const shown = `
  from suggestion s join response r on r.id = s.response_id
  where s.question_id = :questionId and s.code_id = :codeId and (s.state <> 'open' or exists (
    select 1 from open_suggestion o where o.code_id = s.code_id and o.response_id = s.response_id))`;

/** Codes of a question that have suggestions, the most open first. */
export async function listReviews(
  em: EntityManager,
  questionId: number,
  within: number[] | null,
): Promise<ReviewList> {
  const { head, values, gave } = withinGroup(within);
  const codes = await rows<ReviewList['codes'][number]>(
    em,
    `${head} select d.code_id as "codeId", sum(d.accepted)::int as accepted,
       sum(d.refused)::int as refused, sum(d.open)::int as open,
       coalesce(jsonb_agg(jsonb_build_object('name', a.name, 'read', d.read, 'bulk', d.bulk)
         order by a.name) filter (where a.id is not null), '[]') as deciders
     from (
       select s.code_id, s.decided_by, count(o.code_id) as open,
         count(*) filter (where s.state = 'accepted') as accepted,
         count(*) filter (where s.state = 'refused') as refused,
         count(*) filter (where s.state <> 'open' and not s.bulk) as read,
         count(*) filter (where s.state <> 'open' and s.bulk) as bulk
       from suggestion s join code c on c.id = s.code_id
       left join open_suggestion o on o.code_id = s.code_id and o.response_id = s.response_id
       where s.question_id = :questionId and ${gave('s.response_id')}
       group by s.code_id, s.decided_by) d
     left join account a on a.id = d.decided_by
     group by d.code_id order by open desc, d.code_id`,
    { ...values, questionId },
  );
  // what was decided again since, or settled by hand, is contradicted no more
  const contradicted = await rows<ReviewList['contradicted'][number]>(
    em,
    `${head} select x.* from (
         select contradicted from current_run where question_id = :questionId) t,
       jsonb_to_recordset(t.contradicted)
         as x ("codeId" uuid, "responseId" int, state text, probability double precision)
     join suggestion s on s.code_id = x."codeId" and s.response_id = x."responseId"
       and s.state = x.state and s.bulk
     join code c on c.id = x."codeId" where ${gave('s.response_id')}`,
    { ...values, questionId },
  );
  return { codes, contradicted };
}

/** A code's current model, and its threshold. @throws Problem not_found where it has no model */
async function findThreshold(em: EntityManager, questionId: number, codeId: string) {
  const run = await currentRun(em, questionId);
  const trained = run?.codes.find((code) => code.codeId === codeId);
  if (!run || !trained || trained.state === 'too_few')
    throw problems.notFound(reviewTexts.trainedCode);
  const [placed] = await em.find(
    ReviewThresholdEntity,
    { questionId, codeId },
    { fields: ['threshold'] },
  );
  return { runId: run.id, trained, threshold: placed?.threshold ?? trained.threshold };
}

/** Everything about one code's line. @throws Problem not_found where the code has no model */
export async function describeReview(
  em: EntityManager,
  { studyId, questionId, codeId }: { studyId: number; questionId: number; codeId: string },
  within: number[] | null,
): Promise<Review> {
  const { head, values, gave } = withinGroup(within);
  const { runId, trained, threshold } = await findThreshold(em, questionId, codeId);
  const decided = await row<
    Pick<
      Review,
      | 'accepted'
      | 'acceptedInBulk'
      | 'acceptedExpected'
      | 'refused'
      | 'refusedInBulk'
      | 'refusedExpected'
      | 'suggested'
    >
  >(
    em,
    `${head} select (count(*) filter (where state = 'accepted'))::int as accepted,
       (count(*) filter (where state = 'accepted' and bulk))::int as "acceptedInBulk",
       (count(*) filter (where state = 'refused'))::int as refused,
       (count(*) filter (where state = 'refused' and bulk))::int as "refusedInBulk",
       coalesce(sum(probability) filter (where state = 'accepted' and bulk), 0) as "acceptedExpected",
       coalesce(sum(probability) filter (where state = 'refused' and bulk), 0) as "refusedExpected",
       exists (select 1 from suggestion where question_id = :questionId and code_id = :codeId) as suggested
     from suggestion where question_id = :questionId and code_id = :codeId and ${gave('response_id')}`,
    { ...values, questionId, codeId },
  );
  const open = await rows<{ probability: number }>(
    em,
    `${head} select probability from open_suggestion
     where question_id = :questionId and code_id = :codeId and ${gave('response_id')} order by probability desc`,
    { ...values, questionId, codeId },
  );
  const { known } = await row<{ known: number }>(
    em,
    `${head} select count(distinct m.response_id)::int as known from mention m
     join response r on r.id = m.response_id
     where r.question_id = :questionId and m.code_id = :codeId and m.origin <> 'bulk' and ${gave('r.id')}`,
    { ...values, questionId, codeId },
  );
  // what was too unlikely to be suggested is known of all answers together: a group has its share of it
  const { share } = await row<{ share: number }>(
    em,
    `${head} select coalesce((count(*) filter (where ${gave('r.id')}))::float / nullif(count(*), 0), 1) as share
     from response r where r.question_id = :questionId and not r.no_answer`,
    { ...values, questionId },
  );
  const left = await readCodeState(em, studyId, questionId, codeId);
  return {
    codeId,
    runId,
    defaultThreshold: trained.threshold,
    threshold,
    examples: trained.examples,
    weak: trained.state === 'weak',
    verdict: modelVerdict(trained.quality, trained.state === 'weak'),
    ...left,
    withoutSuggestion: Math.max(0, left.undecided - open.length),
    checked: await readChecked(em, questionId, codeId),
    quality: trained.quality,
    unseen: await readUnseen(em, runId, codeId),
    open: open.map((one) => one.probability),
    ...decided,
    known,
    unsuggested: share * trained.unsuggested,
  };
}

/** How far a code is decided for the answers to a question. */
async function readCodeState(
  em: EntityManager,
  studyId: number,
  questionId: number,
  codeId: string,
): Promise<Pick<Review, 'undecided' | 'isClosed'>> {
  const people = await readPeople(em, studyId);
  const { rowOf } = await readMaterial(em, people, questionId);
  const { undecided } = rowOf(codeId, 'decided');
  const closed = await em.count(CodeClosingEntity, { questionId, codeId });
  return { undecided: undecided ? countOf(undecided) : 0, isClosed: closed > 0 };
}

/** The share to which a code applied among those of either side that spot checks read. */
async function readChecked(
  em: EntityManager,
  questionId: number,
  codeId: string,
): Promise<Review['checked']> {
  const found = await rows<{ side: CheckSide; share: number }>(
    em,
    `select k.side, avg((a.verdict = 'applies')::int)::float as share
     from spot_check k join spot_check_answer a on a.check_id = k.id
     where k.question_id = :questionId and k.code_id = :codeId and a.verdict in ('applies', 'not') group by 1`,
    { questionId, codeId },
  );
  const of = (side: CheckSide) => found.find((one) => one.side === side)?.share ?? null;
  return { accepted: of('accepted'), refused: of('refused') };
}

/** One page of a code's suggestions, highest probability first; the key is probability and id. */
export async function readSuggestions(
  em: EntityManager,
  {
    questionId,
    codeId,
    page: { after, limit, same },
    within,
  }: {
    questionId: number;
    codeId: string;
    page: { after?: string | undefined; limit: number; same: 'joined' | 'apart' };
    within: number[] | null;
  },
): Promise<SuggestionPage> {
  const { head, values, gave } = withinGroup(within);
  const [probability, id] = after?.split(':').map(Number) ?? [2, 0];
  const page = await rows<
    Pick<
      SuggestionPage['suggestions'][number],
      | 'responseId'
      | 'probability'
      | 'evidence'
      | 'fromWords'
      | 'fromMeaning'
      | 'state'
      | 'bulk'
      | 'by'
      | 'count'
    >
  >(
    em,
    // answers with the same words that stand alike are one row, in the place of the most likely of them
    `${head}${head ? ', ' : 'with '}alike as (
       select s.*, count(*) over same as count,
         row_number() over (same order by s.probability desc, s.response_id) as rank
       from (select s.*, r.same ${shown} and ${gave('s.response_id')}) s
       window same as (partition by ${same === 'apart' ? 's.response_id' : 's.same, s.state, s.bulk'}))
     select s.response_id as "responseId", s.probability, s.evidence, s.from_words as "fromWords",
       s.from_meaning as "fromMeaning", s.state, s.bulk, s.count::int as count, (select a.name from account a where a.id = s.decided_by) as by
     from alike s where s.rank = 1 and (s.probability, -s.response_id) < (:probability::float8, -(:id::int))
     order by s.probability desc, s.response_id limit :limit`,
    { ...values, questionId, codeId, probability: probability ?? 2, id: id ?? 0, limit },
  );
  const answers = await readAnswers(
    em,
    page.map((one) => one.responseId),
  );
  const last = page.at(-1);
  return {
    suggestions: page.map((one, i) => {
      const { externalId, background, text, mentions, notes } = answers[i]!;
      const unsure = notes.find((note) => note.unsure)?.id ?? null;
      return { ...one, externalId, background, text, mentions, unsure };
    }),
    next: last && page.length === limit ? `${last.probability}:${last.responseId}` : null,
  };
}

/**
 * Stores where the researcher put the threshold.
 *
 * @throws Problem changed_meanwhile when it is no longer where they moved it from
 */
export async function moveThreshold(
  em: EntityManager,
  questionId: number,
  codeId: string,
  { from, to }: ThresholdMove,
) {
  await em.transactional(async (tx) => {
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const { threshold } = await findThreshold(tx, questionId, codeId);
    if (Math.abs(threshold - from) > 1e-9) throw problems.changedMeanwhile();
    await rows(
      tx,
      `insert into review_threshold (question_id, code_id, threshold) values (:questionId, :codeId, :to)
       on conflict (question_id, code_id) do update set threshold = excluded.threshold`,
      { questionId, codeId, to },
    );
  });
}
