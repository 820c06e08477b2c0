import type { EntityManager } from '@mikro-orm/postgresql';
import type { Suggestion } from '@yellow-thread/core/learning';
import { copyRows, rows, SuggestionEntity } from '../database/index.js';

/** Suggestions of one code as a run keeps them. */
export interface KeptSuggestions {
  codeId: string;
  suggestions: (Pick<Suggestion, 'probability' | 'evidence'> & {
    responseId: number;
  } & Partial<Pick<Suggestion, 'fromWords' | 'fromMeaning' | 'line'>>)[];
}

/** Open suggestions give way to a run's; decided ones stay as they are. */
export async function replaceOpenSuggestions(
  em: EntityManager,
  questionId: number,
  runId: number,
  kept: readonly KeptSuggestions[],
) {
  await em.nativeDelete(SuggestionEntity, { questionId, state: 'open' });
  await rows(
    em,
    `create temporary table fresh_suggestion
       (code_id uuid, response_id int, probability double precision, evidence jsonb,
        from_words double precision, from_meaning double precision, line smallint)
     on commit drop`,
  );
  await copyRows(
    em,
    'fresh_suggestion',
    ['code_id', 'response_id', 'probability', 'evidence', 'from_words', 'from_meaning', 'line'],
    kept.flatMap(({ codeId, suggestions }) =>
      suggestions.map((one) => [
        codeId,
        one.responseId,
        one.probability,
        JSON.stringify(one.evidence),
        one.fromWords ?? null,
        one.fromMeaning ?? null,
        one.line ?? null,
      ]),
    ),
  );
  // a code or an answer that is gone since takes its suggestions with it; what is closed stays decided
  await rows(
    em,
    `insert into suggestion (question_id, code_id, response_id, run_id, probability, evidence,
       from_words, from_meaning, line)
     select :questionId, f.code_id, f.response_id, :runId, f.probability, f.evidence,
       f.from_words, f.from_meaning, f.line
     from fresh_suggestion f join code c on c.id = f.code_id join response r on r.id = f.response_id
     where not exists (
       select 1 from code_closing k where k.question_id = r.question_id and k.code_id = f.code_id
         and r.id <= k.last_response_id and (r.changed_at is null or r.changed_at <= k.closed_at))
     on conflict do nothing`,
    { questionId, runId },
  );
  // tens of thousands of new rows: statistics are updated at once, not at the next autovacuum
  await rows(em, 'analyze suggestion');
}
