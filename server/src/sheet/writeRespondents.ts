import { randomUUID } from 'node:crypto';
import type { SheetOutcome } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, copyText, row, rows, StudyEntity } from '../database/index.js';
import { addCategories } from '../respondents/index.js';
import { enterImport, type ImportSource, type SheetRunner } from './importRecord.js';
import { deferForeignKeys, type DeferredKeys } from './deferForeignKeys.js';
import { ensureQuestions, ensureVariables, keepCategories, WAVE } from './studyColumns.js';

/** Where the responses of an import stand: response q of respondent i is `first + q · respondents + i`. */
export interface WrittenResponses {
  first: number;
  respondents: number;
}

const columnsOf: Record<string, string[]> = {
  respondent: ['id', 'study_id', 'import_id', 'external_id', 'weight', 'background'],
  response: ['id', 'question_id', 'respondent_id', 'text', 'no_answer', 'same'],
  mention: ['id', 'response_id', 'code_id', 'coder_id', 'start', 'end', 'origin', 'created_at'],
  settlement: ['response_id', 'coder_id', 'settled_at'],
};

/**
 * Writes new respondents with their background, responses and existing codes.
 *
 * @param em in a transaction that has locked the study
 */
export async function writeRespondents(
  em: EntityManager,
  source: ImportSource,
  outcome: SheetOutcome,
  runner: SheetRunner,
): Promise<WrittenResponses> {
  const { studyId, accountId, settings, shape } = source;
  const { respondents } = outcome;
  const asked = outcome.questions.reduce((sum, one) => sum + one.answered + one.noAnswer, 0);
  const { id: importId, at } = await enterImport(em, source, outcome, {
    respondents,
    responses: asked,
  });
  const variables = await ensureVariables(em, studyId, importId, outcome.variables);
  const [wave] = settings.wave
    ? await ensureVariables(em, studyId, importId, [{ name: WAVE, kind: 'category' }])
    : [];
  const questions = await ensureQuestions(em, source, importId, outcome);
  const codes = await ensureCodes(
    em,
    studyId,
    outcome.codes.map((code) => code.name),
  );
  const firstRespondent = await reserveIds(em, 'respondent', respondents);
  const firstResponse = await reserveIds(em, 'response', respondents * questions.length);

  const keys: DeferredKeys = {
    importId,
    respondents,
    questions,
    codes: codes.map((code) => code.id),
    first: firstResponse,
    firstRespondent,
  };
  await deferForeignKeys(em, keys, () =>
    runner.writeSheet(
      {
        sheet: shape,
        settings,
        outcome,
        ids: {
          study: studyId,
          import: importId,
          firstRespondent,
          firstResponse,
          variables: variables.map((variable) => variable.id),
          questions,
          codes: keys.codes,
          coder: accountId,
        },
        shared: wave ? { variable: wave.id, value: settings.wave } : null,
        now: at,
      },
      (to, bytes) => copyText(em, to, columnsOf[to]!, [bytes]),
    ),
  );
  await addToCounts(em, questions, outcome);
  await keepCategories(em, variables, outcome);
  if (wave)
    await addCategories(em, [{ variableId: wave.id, value: settings.wave, label: settings.wave }]);
  await rows(em, 'update import set summary = summary || :summary::jsonb where id = :importId', {
    summary: JSON.stringify({
      madeCodes: codes.filter((code) => code.made).map((code) => code.id),
    }),
    importId,
  });
  await em.nativeUpdate(
    StudyEntity,
    { id: studyId },
    { noAnswers: settings.noAnswers, asides: settings.asides },
  );
  return { first: firstResponse, respondents };
}

/** The codes of these names, in order; those that the codebook does not have are made. */
async function ensureCodes(em: EntityManager, studyId: number, names: readonly string[]) {
  const known = await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const idOf = new Map(known.map(({ id, name }) => [name.toLowerCase(), id]));
  const first = (known.at(-1)?.position ?? 0) + 1;
  const codes = names.map((name) => {
    const id = idOf.get(name.toLowerCase());
    return { id: id ?? randomUUID(), name, made: id === undefined };
  });
  await rows(
    em,
    `insert into code (id, study_id, theme_id, name, definition, include, exclude, position)
     select id, :studyId, null, name, '', '', '', position
     from jsonb_to_recordset(:codes::jsonb) as fresh (id uuid, name text, position int)`,
    {
      studyId,
      codes: JSON.stringify(
        codes
          .filter((code) => code.made)
          .map(({ id, name }, c) => ({ id, name, position: first + c })),
      ),
    },
  );
  return codes;
}

/**
 * Takes a run of ids that nobody else gets. @returns the first
 *
 * In a transaction of its own: in that of an import the lock would keep imports into other studies waiting to its end.
 */
export const reserveIds = (
  em: EntityManager,
  table: 'respondent' | 'response',
  count: number,
): Promise<number> =>
  em.fork().transactional(async (own) => {
    // only imports give out these ids, one at a time: the run has no holes
    await rows(own, `select pg_advisory_xact_lock(hashtext('reserve ' || :table))`, { table });
    const { first } = await row<{ first: number }>(
      own,
      `select nextval(sequence)::int as first from pg_get_serial_sequence(:table, 'id') as sequence`,
      { table },
    );
    if (count > 1)
      await rows(own, `select setval(pg_get_serial_sequence(:table, 'id'), :first)`, {
        table,
        first: first + count - 1,
      });
    return first;
  });

/** The check counted what was written: the questions need not be counted again. */
const addToCounts = (em: EntityManager, questions: readonly number[], outcome: SheetOutcome) =>
  rows(
    em,
    `update question q set asked = q.asked + n.asked, answered = q.answered + n.answered
     from jsonb_to_recordset(:questions::jsonb) as n (id int, asked int, answered int) where n.id = q.id`,
    {
      questions: JSON.stringify(
        outcome.questions.map(({ answered, noAnswer }, q) => ({
          id: questions[q],
          asked: answered + noAnswer,
          answered,
        })),
      ),
    },
  );
