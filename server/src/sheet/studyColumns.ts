import type { SheetOutcome } from '@yellow-thread/core/sheet';
import { labelOf } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { QuestionEntity, row, rows, VariableEntity, type VariableRow } from '../database/index.js';
import { addCategories } from '../respondents/index.js';
import { problems } from '../wording/problems.js';
import type { ImportSource } from './importRecord.js';
import { studyColumnsTexts } from '../wording/sheet.js';

/** The background variable that distinguishes imports, where the researcher names waves. */
export const WAVE = studyColumnsTexts.wave;

/** Why values of a sheet cannot be kept in a variable of the study; null when they can. */
export function refusedColumn({ name, kind, derived }: VariableRow, wanted: VariableRow['kind']) {
  if (derived) return problems.columnWorkedOut(name);
  return kind === wanted ? null : problems.columnTaken(kind, name);
}

/** The study's variables of these names, in order; those that are missing are made. */
export async function ensureVariables(
  em: EntityManager,
  studyId: number,
  importId: number,
  wanted: readonly { name: string; kind: VariableRow['kind'] }[],
): Promise<VariableRow[]> {
  const known = await em.find(VariableEntity, { studyId });
  const variables = wanted.map(({ name, kind }, v) => {
    const existing = known.find((variable) => variable.name === name);
    const refused = existing && refusedColumn(existing, kind);
    if (refused) throw refused;
    return (
      existing ??
      em.create(VariableEntity, { studyId, name, kind, importId, position: known.length + v })
    );
  });
  await em.flush();
  return variables;
}

/** @returns ids of the study's questions of these wordings, in order; those that are missing are made */
export async function ensureQuestions(
  em: EntityManager,
  { studyId, settings, shape }: ImportSource,
  importId: number,
  { questions }: Pick<SheetOutcome, 'questions'>,
): Promise<number[]> {
  const known = await em.find(QuestionEntity, { studyId });
  const variables = await em.find(VariableEntity, { studyId });
  const ensured = questions.map(({ wording, of }, q) => {
    const despite = settings.answersDespite
      .filter((one) => one.question === wording)
      .map((one) => one.text);
    const existing = known.find((question) => question.wording === wording);
    if (existing) {
      existing.answersDespite = despite;
      return existing;
    }
    const column = settings.columns.findIndex(
      ({ role, name }) => role === 'question' && name === wording,
    );
    return em.create(QuestionEntity, {
      studyId,
      wording,
      label: labelOf(wording, shape.columns[column]?.code ?? ''),
      importId,
      variableId: variables.find((variable) => variable.name === of)?.id ?? null,
      answersDespite: despite,
      position: known.length + q,
    });
  });
  await em.flush();
  return ensured.map((question) => question.id);
}

const inOrder = new Intl.Collator('en', { numeric: true });

/** Keeps how the values of category variables are called, and how many different values each has. */
export async function keepCategories(
  em: EntityManager,
  variables: readonly VariableRow[],
  outcome: Pick<SheetOutcome, 'variables' | 'respondents'>,
): Promise<void> {
  const [first] = variables;
  if (!first) return;
  const { others } = await row<{ others: boolean }>(
    em,
    `select count(*) > :respondents as others from (
       select 1 from respondent where study_id = :studyId limit :outcome) as enough`,
    { respondents: outcome.respondents, studyId: first.studyId, outcome: outcome.respondents + 1 },
  );
  await addCategories(
    em,
    variables.flatMap(({ id }, v) =>
      (outcome.variables[v]!.categories ?? [])
        .toSorted((x, y) => inOrder.compare(x.label, y.label))
        .map(({ value, label }) => ({ variableId: id, value, label })),
    ),
  );
  if (others) {
    for (const { id } of variables) await countDifferent(em, id);
    return;
  }
  // with nobody else in the study the check has counted them
  const counted = variables.map(({ id }, v) => {
    const { stated, different } = outcome.variables[v]!;
    return { id, values: different + (stated < outcome.respondents ? 1 : 0) };
  });
  await rows(
    em,
    `update variable v set distinct_values = c.values
     from jsonb_to_recordset(:counted::jsonb) as c (id int, "values" int) where v.id = c.id`,
    { counted: JSON.stringify(counted) },
  );
}

/** Counts the different values of a variable again, "not stated" among them. */
export const countDifferent = (em: EntityManager, variableId: number) =>
  rows(
    em,
    `update variable v set distinct_values = (
       select count(*) from (
         select distinct coalesce(c.label, r.background->>(v.id::text)) from respondent r
         left join category c on c.variable_id = v.id and c.value = r.background->>(v.id::text)
         where r.study_id = v.study_id) different)
     where v.id = :variableId`,
    { variableId },
  );
