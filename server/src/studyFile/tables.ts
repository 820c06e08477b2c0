/** What the numbers of a study's rows count: each kind is numbered anew in a file, and again where that is opened. */
export type Kind =
  | 'study'
  | 'account'
  | 'import'
  | 'variable'
  | 'question'
  | 'respondent'
  | 'response'
  | 'sample'
  | 'run'
  | 'toneRun'
  | 'change';

/** How bytes hold numbers of rows: as 32-bit integers one after the other, or within gzipped JSON. */
type Packed = { ints: Kind } | 'gzippedJson';

/** A table as a study file holds it. */
export interface FileTable {
  name: string;
  /** The condition that a row `t` is of the study `:studyId`. */
  of: string;
  /** An order that does not depend on the numbers and ids of this database. */
  order: string;
  /** The kind that its own `id` numbers; left out where that is a uuid or the table has none. */
  numbers?: Kind;
  /** Columns that hold numbers of rows, single or as a list. */
  ints?: Readonly<Record<string, Kind>>;
  bytes?: Readonly<Record<string, Packed>>;
  /** The version of the form that it came with; left out where it was always there. */
  since?: number;
  /** Columns that are not taken along. */
  leftOut?: readonly string[];
}

const ofStudy = 't.study_id = :studyId';
const within = (parent: string, column: string, key = 'id') =>
  `t.${column} in (select p.${key} from ${parent} p where p.study_id = :studyId)`;
const ofQuestion = within('question', 'question_id');
const ofResponse = `t.response_id in (select p.id from response p
  join question q on q.id = p.question_id where q.study_id = :studyId)`;

/** A uuid as it was in the study that this one was copied from first. */
export const originOf = (column: string): string =>
  `coalesce((select o.origin from copied_id o where o.study_id = :studyId and o.id = t.${column}), t.${column})`;

const byId = 't.id';
const byOrigin = originOf('id');

/** Every table of a study file of the present form, each behind all that its rows refer to. */
export const FILE_TABLES: readonly FileTable[] = [
  {
    ...{ name: 'study', of: 't.id = :studyId', order: byId, numbers: 'study' },
    leftOut: ['archived_at', 'deleted_at'],
  },
  {
    ...{ name: 'import', of: ofStudy, order: byId, numbers: 'import' },
    ints: { study_id: 'study', imported_by: 'account', undone_by: 'account' },
  },
  {
    ...{ name: 'variable', of: ofStudy, order: byId, numbers: 'variable' },
    ints: { study_id: 'study', import_id: 'import' },
  },
  {
    ...{ name: 'category', of: within('variable', 'variable_id') },
    ...{ order: 't.variable_id, t.value', ints: { variable_id: 'variable' } },
  },
  {
    ...{ name: 'question', of: ofStudy, order: byId, numbers: 'question' },
    ints: { study_id: 'study', import_id: 'import', variable_id: 'variable' },
  },
  {
    ...{ name: 'respondent', of: ofStudy, order: byId, numbers: 'respondent' },
    ints: { study_id: 'study', import_id: 'import' },
  },
  {
    ...{ name: 'response', of: ofQuestion, order: byId, numbers: 'response' },
    ints: { question_id: 'question', respondent_id: 'respondent' },
  },
  {
    ...{ name: 'import_before', of: within('import', 'import_id') },
    order: 't.import_id, t.respondent_id',
    ints: { import_id: 'import', respondent_id: 'respondent' },
  },
  {
    ...{ name: 'import_before_response', of: within('import', 'import_id') },
    order: 't.import_id, t.response_id',
    ints: { import_id: 'import', response_id: 'response' },
  },
  { name: 'theme', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    name: 'code',
    of: ofStudy,
    order: byOrigin,
    ints: { study_id: 'study', questions: 'question' },
  },
  { name: 'bundle', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    ...{ name: 'bundle_code', of: within('bundle', 'bundle_id') },
    order: `${originOf('bundle_id')}, ${originOf('code_id')}`,
  },
  {
    ...{ name: 'mention', of: ofResponse, order: `t.response_id, ${byOrigin}` },
    ints: { response_id: 'response', coder_id: 'account' },
  },
  {
    ...{ name: 'settlement', of: ofResponse, order: 't.response_id, t.settled_at' },
    ints: { response_id: 'response', coder_id: 'account' },
  },
  {
    ...{ name: 'note', of: ofStudy, order: byOrigin },
    ints: {
      ...{ study_id: 'study', response_id: 'response' },
      ...{ respondent_id: 'respondent', author_id: 'account' },
    },
  },
  {
    ...{ name: 'line_cut', of: ofResponse, order: 't.response_id, t.at' },
    ints: { response_id: 'response' },
  },
  { name: 'saved_group', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    ...{ name: 'sample', of: ofQuestion, order: byId, numbers: 'sample' },
    ints: { question_id: 'question', variable_id: 'variable' },
  },
  {
    ...{ name: 'sample_member', of: ofResponse, order: 't.sample_id, t.response_id' },
    ints: { sample_id: 'sample', response_id: 'response' },
  },
  {
    ...{ name: 'training_run', of: ofStudy, order: byId, numbers: 'run' },
    ints: {
      ...{ study_id: 'study', question_id: 'question', trained_by: 'account' },
      ...{ last_response_id: 'response', out_of_scope: 'response' },
    },
    // what an earlier run suggested: only what is in force is taken along
    leftOut: ['outcome'],
  },
  {
    ...{ name: 'suggestion', of: ofQuestion },
    order: `t.question_id, t.response_id, ${originOf('code_id')}`,
    ints: {
      ...{ question_id: 'question', response_id: 'response' },
      ...{ run_id: 'run', decided_by: 'account' },
    },
  },
  {
    ...{ name: 'run_sample', of: within('training_run', 'run_id'), order: 't.run_id' },
    ...{ ints: { run_id: 'run' }, bytes: { respondents: { ints: 'respondent' } } },
  },
  {
    ...{ name: 'run_prediction', of: within('training_run', 'run_id') },
    ...{ order: `t.run_id, ${originOf('code_id')}`, ints: { run_id: 'run' } },
  },
  { name: 'excluded_word', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    ...{ name: 'review_threshold', of: ofQuestion },
    ...{ order: `t.question_id, ${originOf('code_id')}`, ints: { question_id: 'question' } },
  },
  {
    ...{ name: 'spot_check', of: ofStudy, order: byOrigin },
    ints: { study_id: 'study', question_id: 'question', drawn_by: 'account' },
  },
  {
    ...{ name: 'spot_check_answer', of: ofResponse },
    ...{ order: `${originOf('check_id')}, t.response_id`, ints: { response_id: 'response' } },
  },
  {
    ...{ name: 'code_closing', of: ofStudy, order: `t.question_id, ${originOf('code_id')}` },
    ints: {
      ...{ study_id: 'study', question_id: 'question' },
      ...{ last_response_id: 'response', closed_by: 'account' },
    },
  },
  {
    ...{ name: 'model_decision', of: ofStudy, order: 't.question_id' },
    ints: {
      ...{ study_id: 'study', question_id: 'question', run_id: 'run', sample_id: 'sample' },
      ...{ last_response_id: 'response', decided_by: 'account' },
    },
  },
  {
    ...{ name: 'second_reading', of: ofStudy, order: byOrigin },
    ints: {
      ...{ study_id: 'study', question_id: 'question', reader_id: 'account' },
      ...{ drawn_by: 'account', first_coders: 'account' },
    },
  },
  {
    ...{ name: 'second_reading_answer', of: within('second_reading', 'reading_id') },
    ...{ order: `${originOf('reading_id')}, t.response_id`, ints: { response_id: 'response' } },
  },
  {
    ...{ name: 'assignment', of: ofStudy, order: byOrigin, since: 2 },
    ints: {
      ...{ study_id: 'study', question_id: 'question', response_ids: 'response' },
      ...{ coder_id: 'account', assigned_by: 'account' },
    },
  },
  {
    ...{ name: 'answer_cluster', of: ofStudy, order: byOrigin },
    ints: { study_id: 'study', question_id: 'question', response_ids: 'response' },
  },
  { name: 'code_map', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  { name: 'map_node', of: within('code_map', 'map_id'), order: byOrigin },
  { name: 'map_relation', of: within('code_map', 'map_id'), order: byOrigin },
  {
    ...{ name: 'map_pin', of: within('code_map', 'map_id'), order: byOrigin },
    ints: { response_id: 'response' },
  },
  { name: 'glossary_term', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    ...{ name: 'tone_check', of: ofStudy, order: byOrigin },
    ints: { study_id: 'study', response_id: 'response', checked_by: 'account' },
  },
  {
    ...{ name: 'tone_sample', of: ofQuestion, order: 't.question_id, t.response_id' },
    ints: { question_id: 'question', response_id: 'response' },
  },
  {
    ...{ name: 'tone_run', of: ofStudy, order: byId, numbers: 'toneRun' },
    ints: { study_id: 'study', trained_by: 'account' },
  },
  {
    ...{ name: 'tone_prediction', of: within('tone_run', 'run_id') },
    order: 't.run_id, t.question_id',
    ints: { run_id: 'toneRun', question_id: 'question' },
    bytes: { response_ids: { ints: 'response' } },
  },
  {
    ...{ name: 'write_up', of: ofStudy, order: byOrigin },
    ints: { study_id: 'study', saved_by: 'account', binned_by: 'account' },
  },
  { name: 'picture', of: ofStudy, order: byOrigin, ints: { study_id: 'study' } },
  {
    ...{ name: 'frozen_answers', of: within('write_up', 'write_up_id') },
    ...{ order: `${originOf('write_up_id')}, t.page`, bytes: { rows: 'gzippedJson' } },
  },
  {
    ...{ name: 'change', of: ofStudy, order: byId, numbers: 'change' },
    ints: { study_id: 'study', account_id: 'account' },
  },
];

/** The tables of a study file of some version of the form. */
export const tablesOfVersion = (version: number): readonly FileTable[] =>
  FILE_TABLES.filter(({ since = 1 }) => since <= version);
