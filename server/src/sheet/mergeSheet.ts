import type { SheetDifference, SheetSettings } from '@yellow-thread/contract';
import { matchIds, type SheetOutcome } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { copyText, QuestionEntity, row, rows, VariableEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { countAnswers } from '../study/index.js';
import { problems } from '../wording/problems.js';
import { enterImport, type ImportSource } from './importRecord.js';
import { moveMentions } from './moveMentions.js';
import {
  countDifferent,
  ensureQuestions,
  ensureVariables,
  keepCategories,
} from './studyColumns.js';
import type { SheetRows } from './sheetWork.js';
import { reserveIds } from './writeRespondents.js';

type ReadPart = (index: number) => Promise<Uint8Array>;

interface Staging {
  shape: SheetRows;
  settings: SheetSettings;
  part: ReadPart;
  signal?: AbortSignal;
  /** Keys of the staged background, and ids of the questions, in the outcome's order; null: new. */
  variables: string[];
  questions: (number | null)[];
}

/** Puts the rows of a sheet beside the study's respondents, into tables of this transaction. */
async function stage(
  em: EntityManager,
  {
    threads,
    studyId,
    outcome,
    staging: { shape, settings, part, signal, variables, questions },
  }: { threads: Threads; studyId: number; outcome: SheetOutcome; staging: Staging },
): Promise<void> {
  await rows(
    em,
    `create temporary table staged (
       row int, external_id text collate "C", weight double precision, background jsonb,
       responses jsonb, respondent_id int) on commit drop`,
  );
  await threads.run(
    'stageSheet',
    { sheet: shape, settings, outcome, variables },
    {
      part,
      write: (to, bytes) =>
        copyText(em, to, ['row', 'external_id', 'weight', 'background', 'responses'], [bytes]),
      ...(signal && { signal }),
    },
  );
  await rows(
    em,
    `update staged s set external_id = m."to"
     from jsonb_to_recordset(:matches::jsonb) as m ("from" text, "to" text) where s.external_id = m."from"`,
    { matches: JSON.stringify(settings.matches) },
  );
  await rows(
    em,
    `update staged s set respondent_id = r.id from respondent r
     where r.study_id = :studyId and r.external_id = s.external_id`,
    { studyId },
  );
  const [twice] = await rows<{ id: string }>(
    em,
    `select external_id as id from staged group by external_id having count(*) > 1 limit 1`,
  );
  if (twice) throw problems.matchedTwice(twice.id);
  if (settings.as === 'details')
    // a blank cell of a sheet of details says nothing about what is known already
    await rows(
      em,
      `update staged set background = jsonb_strip_nulls(background), responses = '[]'`,
    );
  if (settings.as === 'answers')
    await rows(em, 'update staged set background = jsonb_strip_nulls(background)');
  await rows(
    em,
    `create temporary table staged_response on commit drop as
     select s.respondent_id, s.external_id, q.id as question_id, (e.place - 1)::int as place,
       e.value->>'text' as text, (e.value->>'noAnswer')::boolean as no_answer,
       (e.value->>'same')::bigint as same
     from staged s cross join lateral jsonb_array_elements(s.responses) with ordinality as e (value, place)
     left join unnest(:questions::int[]) with ordinality as q (id, place) on q.place = e.place
     where e.value <> 'null'::jsonb`,
    { questions },
  );
  // answers that are there already are another matter: of corrections
  if (settings.as === 'answers')
    await rows(
      em,
      `delete from staged_response s where respondent_id is null or exists (
         select 1 from response r
         where r.respondent_id = s.respondent_id and r.question_id = s.question_id)`,
    );
  await rows(em, 'analyze staged, staged_response');
}

const hasWeight = ({ columns }: SheetSettings) => columns.some(({ role }) => role === 'weight');

/** Respondents whose values differ between the sheet and the study. */
const changedPeople = (weighted: boolean) => `
  from staged s join respondent r on r.id = s.respondent_id
  where (r.background || s.background) is distinct from r.background
    ${weighted ? 'or r.weight is distinct from s.weight' : ''}`;
const changedTexts = `
  from staged_response s join response r
    on r.respondent_id = s.respondent_id and r.question_id = s.question_id
  where r.text is distinct from s.text`;

/** Responses that are not there yet. */
const missingTexts = `
  from staged_response s where not exists (
    select 1 from response r where r.respondent_id = s.respondent_id and r.question_id = s.question_id)`;

const SHOWN = 100;

/** What importing a sheet about respondents who are here would change. */
export async function differenceOf(
  em: EntityManager,
  {
    threads,
    studyId,
    sheet,
    outcome,
  }: {
    threads: Threads;
    studyId: number;
    sheet: Pick<Staging, 'shape' | 'part' | 'settings' | 'signal'>;
    outcome: SheetOutcome;
  },
): Promise<SheetDifference & { unknownIds: string[]; absentIds: string[] }> {
  const variables = await em.find(VariableEntity, { studyId });
  const questions = await em.find(QuestionEntity, { studyId });
  const weighted = hasWeight(sheet.settings);
  return em.transactional(async (tx) => {
    await stage(tx, {
      threads,
      studyId,
      outcome,
      staging: {
        ...sheet,
        variables: outcome.variables.map(({ name }) =>
          String(variables.find((one) => one.name === name)?.id ?? `new: ${name}`),
        ),
        questions: outcome.questions.map(
          ({ wording }) => questions.find((one) => one.wording === wording)?.id ?? null,
        ),
      },
    });
    const ids = async (sql: string) =>
      (await rows<{ id: string }>(tx, sql, { studyId })).map((one) => one.id);
    const unknownIds = await ids(
      `select external_id as id from staged where respondent_id is null order by row`,
    );
    const absentIds = await ids(
      `select external_id as id from respondent r where study_id = :studyId
         and not exists (select 1 from staged s where s.respondent_id = r.id) order by id`,
    );
    const counts = await row<{
      people: number;
      texts: number;
      coded: number;
      found: number;
      fresh: number;
    }>(
      tx,
      `select (select count(*)::int ${missingTexts} and respondent_id is not null and not no_answer)
           as fresh,
         (select count(*)::int ${changedPeople(weighted)}) as people,
         (select count(*)::int ${changedTexts}) as texts,
         (select count(*)::int ${changedTexts} and (
           exists (select 1 from mention m where m.response_id = r.id)
           or exists (select 1 from settlement t where t.response_id = r.id))) as coded,
         (select count(*)::int from staged where respondent_id is not null) as found`,
    );
    const texts = await rows<SheetDifference['changes'][number]>(
      tx,
      `select s.external_id as "externalId", q.label as about, left(r.text, 600) as before,
         left(s.text, 600) as after
       ${changedTexts.replace('where', 'join question q on q.id = r.question_id where')}
       order by r.id limit ${SHOWN}`,
    );
    const values = await rows<SheetDifference['changes'][number]>(
      tx,
      `select s.external_id as "externalId", coalesce(v.name, substr(n.key, 6)) as about,
         coalesce(r.background->>n.key, '') as before, coalesce(n.value, '') as after
       from staged s join respondent r on r.id = s.respondent_id
       cross join lateral jsonb_each_text(s.background) as n
       left join variable v on v.id::text = n.key
       where coalesce(r.background->>n.key, '') <> coalesce(n.value, '')
       order by r.id, n.key limit ${SHOWN}`,
    );
    return {
      found: counts.found,
      unknown: unknownIds.length,
      absent: absentIds.length,
      changedPeople: counts.people,
      changedTexts: counts.texts,
      changedCoded: counts.coded,
      newAnswers: counts.fresh,
      changes: [...texts, ...values],
      proposals: matchIds(unknownIds, absentIds).slice(0, 500),
      firstUnknown: unknownIds.slice(0, SHOWN),
      firstAbsent: absentIds.slice(0, SHOWN),
      unknownIds,
      absentIds,
    };
  });
}

/**
 * Imports a sheet about respondents who are here: details, answers or corrections. What it overwrites is kept with the import, so that it can be
 * undone; changed texts keep their codes and are marked for another look.
 *
 * @param em in a transaction that has locked the study
 */
export async function mergeSheet(
  em: EntityManager,
  {
    threads,
    source,
    outcome,
    part,
    signal,
  }: {
    threads: Threads;
    source: ImportSource;
    outcome: SheetOutcome;
    part: ReadPart;
    signal: AbortSignal;
  },
): Promise<void> {
  const { studyId, settings, shape } = source;
  const weighted = hasWeight(settings);
  const { id: importId } = await enterImport(em, source, outcome, { respondents: 0, responses: 0 });
  const variables = await ensureVariables(em, studyId, importId, outcome.variables);
  const questions =
    settings.as === 'details' ? [] : await ensureQuestions(em, source, importId, outcome);
  await stage(em, {
    threads,
    studyId,
    outcome,
    staging: {
      shape,
      settings,
      part,
      signal,
      questions,
      variables: variables.map((variable) => String(variable.id)),
    },
  });
  await rows(
    em,
    `insert into import_before (import_id, respondent_id, weight, background)
     select :importId, r.id, r.weight, r.background ${changedPeople(weighted)}`,
    { importId },
  );
  await rows(
    em,
    `update respondent r set background = r.background || s.background
       ${weighted ? ', weight = s.weight' : ''}
     from staged s where s.respondent_id = r.id
       and exists (select 1 from import_before b where b.import_id = :importId and b.respondent_id = r.id)`,
    { importId },
  );
  await rows(
    em,
    `insert into import_before_response (import_id, response_id, text, no_answer, same)
     select :importId, r.id, r.text, r.no_answer, r.same ${changedTexts}`,
    { importId },
  );
  await rows(
    em,
    `update response r set text = s.text, no_answer = s.no_answer, same = s.same,
       changed_at = case when exists (select 1 from mention m where m.response_id = r.id)
         or exists (select 1 from settlement t where t.response_id = r.id) then now() end
     from staged_response s
     where r.respondent_id = s.respondent_id and r.question_id = s.question_id
       and exists (select 1 from import_before_response b
         where b.import_id = :importId and b.response_id = r.id)`,
    { importId },
  );
  await moveMentions(em, importId);
  const added = {
    respondents: settings.as === 'corrections' ? await addNewcomers(em, studyId, importId) : 0,
    responses: settings.as === 'details' ? 0 : await addMissing(em, importId),
  };
  const changed = await row<{ people: number; texts: number }>(
    em,
    `select (select count(*)::int from import_before where import_id = :importId) as people,
       (select count(*)::int from import_before_response
          where import_id = :importId and text is not null) as texts`,
    { importId },
  );
  await rows(
    em,
    `update import set respondents = :respondents, responses = :responses, summary = summary || :summary::jsonb where id = :importId`,
    {
      respondents: added.respondents,
      responses: added.responses,
      summary: JSON.stringify({ changed }),
      importId,
    },
  );
  await countAnswers(em, studyId);
  await keepCategories(em, variables, outcome);
  for (const variable of variables) await countDifferent(em, variable.id);
}

/** Respondents whom the study did not have. */
async function addNewcomers(em: EntityManager, studyId: number, importId: number): Promise<number> {
  const { people } = await row<{ people: number }>(
    em,
    'select count(*)::int as people from staged where respondent_id is null',
  );
  if (people > 0) {
    const first = await reserveIds(em, 'respondent', people);
    await rows(
      em,
      `with fresh as (
         select external_id, (:first + row_number() over (order by row) - 1)::int as id from staged
         where respondent_id is null)
       update staged s set respondent_id = f.id from fresh f where f.external_id = s.external_id`,
      { first },
    );
    await rows(
      em,
      `insert into respondent (id, study_id, import_id, external_id, weight, background)
       select respondent_id, :studyId, :importId, external_id, weight, background from staged
       where respondent_id >= :first and respondent_id < :after`,
      { studyId, importId, first, after: first + people },
    );
    await rows(
      em,
      `update staged_response r set respondent_id = s.respondent_id from staged s
       where r.respondent_id is null and s.external_id = r.external_id`,
    );
  }
  return people;
}

/** Responses that were not there, of those who were here before and of newcomers. */
async function addMissing(em: EntityManager, importId: number): Promise<number> {
  const { responses } = await row<{ responses: number }>(
    em,
    `select count(*)::int as responses ${missingTexts}`,
  );
  if (responses > 0) {
    const first = await reserveIds(em, 'response', responses);
    await rows(
      em,
      `insert into response (id, question_id, respondent_id, text, no_answer, same)
       select :first + row_number() over (order by s.question_id, s.respondent_id) - 1, s.question_id,
         s.respondent_id, s.text, s.no_answer, s.same ${missingTexts}`,
      { first },
    );
    await rows(
      em,
      `insert into import_before_response (import_id, response_id)
       select :importId, r.id from response r join respondent p on p.id = r.respondent_id
       where r.id >= :first and r.id < :after and p.import_id <> :importId`,
      { importId, first, after: first + responses },
    );
  }
  return responses;
}
