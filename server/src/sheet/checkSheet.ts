import type { SheetCheck, SheetSettings } from '@yellow-thread/contract';
import type { SheetOutcome } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isDeepStrictEqual } from 'node:util';
import { CodeEntity, QuestionEntity, row, rows, VariableEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import { readySheet } from './sheets.js';
import { refusedColumn } from './studyColumns.js';

const ROWS_NAMED = 200;
const LONGEST_PREVIEW = 2_000;

/** A check holds for the settings that it was made with and the respondents that the study then had. */
interface Checked {
  settings: SheetSettings;
  respondents: string;
  outcome: SheetOutcome;
}

/** What bringing the sheet in with these settings would write; the last answer is kept. */
export async function checkOutcome(
  em: EntityManager,
  {
    threads,
    sheet: { id: sheetId, studyId },
    settings,
    signal,
  }: {
    threads: Threads;
    sheet: { id: number; studyId: number };
    settings: SheetSettings;
    signal?: AbortSignal | undefined;
  },
): Promise<SheetOutcome> {
  const { shape, part } = await readySheet(em, studyId, sheetId);
  if (settings.columns.length !== shape.columns.length)
    throw problems.invalidRequest({ field: 'settings.columns' });
  const { respondents } = await row<{ respondents: string }>(
    em,
    `select count(*) || ' ' || coalesce(max(id), 0) as respondents from respondent where study_id = :studyId`,
    { studyId },
  );
  const { checked } = await row<{ checked: Checked | null }>(
    em,
    'select checked from sheet where id = :sheetId',
    { sheetId },
  );
  if (checked?.respondents === respondents && isDeepStrictEqual(checked.settings, settings))
    return checked.outcome;
  // of details and corrections it is just the known ones that matter
  const known =
    settings.as === 'respondents'
      ? await rows<{ ids: string[] | null }>(
          em,
          'select json_agg(external_id) as ids from respondent where study_id = :studyId',
          { studyId },
        )
      : [];
  const { labels } = await row<{ labels: Record<string, string[]> }>(
    em,
    `select coalesce(jsonb_object_agg(name, labels), '{}') as labels from (
       select v.name, jsonb_agg(distinct c.label) as labels
       from variable v join category c on c.variable_id = v.id where v.study_id = :studyId group by 1) known`,
    { studyId },
  );
  const outcome = await threads.run(
    'checkSheet',
    { sheet: shape, settings, known: known[0]?.ids ?? [], labels, seed: sheetId },
    { part, ...(signal && { signal }) },
  );
  await rows(em, 'update sheet set settings = :settings, checked = :checked where id = :sheetId', {
    settings: JSON.stringify(settings),
    checked: JSON.stringify({ settings, respondents, outcome } satisfies Checked),
    sheetId,
  });
  return outcome;
}

/** The outcome as it is shown: with what the study already has, and no longer than can be read. */
export async function describeCheck(
  em: EntityManager,
  studyId: number,
  outcome: SheetOutcome,
): Promise<SheetCheck> {
  const variables = await em.find(VariableEntity, { studyId });
  const questions = await em.find(QuestionEntity, { studyId });
  const codes = await em.find(CodeEntity, { studyId });
  const codeNames = new Set(codes.map((code) => code.name.toLowerCase()));
  const taken = outcome.variables.flatMap(({ name, kind }) =>
    variables
      .filter((known) => known.name === name)
      .map((known) => refusedColumn(known, kind)?.message)
      .filter((sentence) => sentence !== undefined),
  );
  return {
    respondents: outcome.respondents,
    questions: outcome.questions.map((question) => ({
      ...question,
      known: questions.some((one) => one.wording === question.wording),
    })),
    variables: outcome.variables.map((variable) => ({
      ...variable,
      categories: variable.categories?.slice(0, 60) ?? null,
      known: variables.some((one) => one.name === variable.name),
    })),
    codes: outcome.codes.map((code) => ({
      ...code,
      known: codeNames.has(code.name.toLowerCase()),
    })),
    findings: [
      ...taken.map((sentence) => ({
        code: 'column_taken',
        kind: 'stop' as const,
        sentence,
        count: 0,
        rows: [],
        about: '',
      })),
      ...outcome.findings.map((finding) => ({
        ...finding,
        rows: finding.rows.slice(0, ROWS_NAMED),
      })),
    ],
    preview: outcome.preview.map(({ row: number, externalId, planned }) => ({
      row: number,
      externalId,
      background: outcome.variables.map((_, v) => planned.background[v] ?? null),
      responses: planned.responses.map(
        (response) =>
          response && {
            text: response.text.slice(0, LONGEST_PREVIEW),
            noAnswer: response.noAnswer,
            codes: [...new Set(response.codes)].map((code) => outcome.codes[code]!.name),
          },
      ),
    })),
  };
}
