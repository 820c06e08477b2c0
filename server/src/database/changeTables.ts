import type {
  AnswerCluster,
  AsideMarks,
  Assignment,
  BackgroundValue,
  Derived,
  Bundle,
  BundleCode,
  Code,
  CodeClosing,
  CodeMap,
  Group,
  LineCut,
  MapNode,
  MapPin,
  MapRelation,
  Mention,
  ModelDecision,
  Note,
  SecondReading,
  SecondReadingAnswer,
  Settlement,
  SpotCheck,
  SpotCheckAnswer,
  ExcludedWord,
  GlossaryTerm,
  Suggestion,
  Theme,
  ToneCheck,
  Variable,
} from '@yellow-thread/contract';
import type { RecordsDiff } from '@yellow-thread/core/coding';
import { types, type EntitySchema } from '@mikro-orm/core';
import * as entities from './entities/index.js';

/** The tables whose every change is recorded with what it takes to reverse it. */
export interface ChangeTables {
  study: StudyRecord;
  question: QuestionRecord;
  variable: VariableRecord;
  category: CategoryRecord;
  respondent: RespondentRecord;
  theme: Theme;
  code: Code;
  bundle: Bundle;
  bundle_code: BundleCode;
  mention: Mention;
  settlement: Settlement;
  note: Note;
  line_cut: LineCut;
  saved_group: Group;
  suggestion: Suggestion;
  excluded_word: ExcludedWord;
  spot_check: SpotCheck;
  spot_check_answer: SpotCheckAnswer;
  second_reading: SecondReading;
  second_reading_answer: SecondReadingAnswer;
  assignment: Assignment;
  code_closing: CodeClosing;
  model_decision: ModelDecision;
  answer_cluster: AnswerCluster;
  code_map: CodeMap;
  map_node: MapNode;
  map_relation: MapRelation;
  map_pin: MapPin;
  glossary_term: GlossaryTerm;
  tone_check: ToneCheck;
}
/** What people change of a study, its questions and its background. */
export interface StudyRecord {
  id: number;
  name: string;
  purpose: string;
  asides: AsideMarks;
  setAside: string[] | null;
}
export interface QuestionRecord {
  id: number;
  studyId: number;
  position: number;
  label: string;
  wording: string;
}
export interface VariableRecord {
  id: number;
  studyId: number;
  position: number;
  name: string;
  kind: Variable['kind'];
  derived: Derived | null;
}
export interface CategoryRecord {
  variableId: number;
  value: string;
  label: string;
  position: number;
}
export interface RespondentRecord {
  id: number;
  studyId: number;
  background: Record<string, BackgroundValue | null>;
}
export type ChangeDiff = RecordsDiff<ChangeTables>;

export interface TableShape {
  key: readonly string[];
  /** Fields of the record (as in the contract) and their PostgreSQL types. */
  fields: Readonly<Record<string, string>>;
  /** What records have that were kept before there was such a field. */
  formerly?: Readonly<Record<string, unknown>>;
}

const SQL_TYPES = new Map<unknown, string>([
  [types.integer, 'int'],
  [types.float, 'double precision'],
  [types.boolean, 'boolean'],
  [types.text, 'text'],
  [types.uuid, 'uuid'],
  [types.datetime, 'timestamptz'],
  [types.json, 'jsonb'],
  [undefined, 'text'], // one of a few words
]);

type Properties<Entity extends object> = EntitySchema<Entity>['meta']['properties'];

/** Records as an entity describes them: all its properties, or those that people change. */
function shapeOf<Entity extends object>(
  { meta }: EntitySchema<Entity>,
  only: readonly (keyof Properties<Entity> & string)[] | null = null,
  formerly: TableShape['formerly'] = {},
): TableShape {
  const properties: Record<string, { type?: unknown; primary?: boolean }> = meta.properties;
  const fields: Record<string, string> = {};
  const key: string[] = [];
  for (const [name, { type, primary }] of Object.entries(properties)) {
    if (only && !only.includes(name as keyof Properties<Entity> & string)) continue;
    const sqlType = SQL_TYPES.get(type);
    if (!sqlType) throw new Error(`${meta.tableName}.${name} is of a type that no change records.`);
    fields[name] = sqlType;
    if (primary) key.push(name);
  }
  return { key, fields, formerly };
}

/** In the order in which rows may be inserted; they are deleted in the reverse. */
export const shapes: Readonly<Record<keyof ChangeTables, TableShape>> = {
  study: shapeOf(entities.StudyEntity, ['id', 'name', 'purpose', 'asides', 'setAside']),
  question: shapeOf(entities.QuestionEntity, ['id', 'studyId', 'position', 'label', 'wording']),
  variable: shapeOf(entities.VariableEntity, [
    'id',
    'studyId',
    'position',
    'name',
    'kind',
    'derived',
  ]),
  category: shapeOf(entities.CategoryEntity),
  respondent: shapeOf(entities.RespondentEntity, ['id', 'studyId', 'background']),
  theme: shapeOf(entities.ThemeEntity),
  code: shapeOf(entities.CodeEntity, null, { archived: false }),
  bundle: shapeOf(entities.BundleEntity),
  bundle_code: shapeOf(entities.BundleCodeEntity),
  mention: shapeOf(entities.MentionEntity, null, { typical: false }),
  settlement: shapeOf(entities.SettlementEntity, null, { assisted: false }),
  note: shapeOf(entities.NoteEntity),
  line_cut: shapeOf(entities.LineCutEntity),
  suggestion: shapeOf(entities.SuggestionEntity, [
    'codeId',
    'responseId',
    'state',
    'decidedBy',
    'decidedAt',
    'bulk',
  ]),
  saved_group: shapeOf(entities.GroupEntity),
  excluded_word: shapeOf(entities.ExcludedWordEntity),
  spot_check: shapeOf(entities.SpotCheckEntity),
  spot_check_answer: shapeOf(entities.SpotCheckAnswerEntity),
  second_reading: shapeOf(entities.SecondReadingEntity),
  second_reading_answer: shapeOf(entities.SecondReadingAnswerEntity),
  assignment: shapeOf(entities.AssignmentEntity),
  code_closing: shapeOf(entities.CodeClosingEntity),
  model_decision: shapeOf(entities.ModelDecisionEntity),
  answer_cluster: shapeOf(entities.AnswerClusterEntity),
  code_map: shapeOf(entities.CodeMapEntity),
  map_node: shapeOf(entities.MapNodeEntity),
  map_relation: shapeOf(entities.MapRelationEntity),
  map_pin: shapeOf(entities.MapPinEntity),
  glossary_term: shapeOf(entities.GlossaryTermEntity),
  tone_check: shapeOf(entities.ToneCheckEntity),
};

/** The name of a property's column. */
export const columnOf = (field: string): string =>
  `"${field.replaceAll(/[A-Z]/gu, (capital) => `_${capital.toLowerCase()}`)}"`;

/** A table's records in a select: every field of theirs, of the row that `alias` names. */
export const selectFields = (table: keyof ChangeTables, alias: string): string =>
  Object.keys(shapes[table].fields)
    .map((field) => `${alias}.${columnOf(field)} as "${field}"`)
    .join(', ');

const asJson = (value: unknown): unknown =>
  value instanceof Date ? value.toISOString() : (value ?? null);

/** What was read through the ORM as a change records it and the contract describes it: plain, times as ISO 8601. */
export const asRecord = <Table extends keyof ChangeTables>(
  table: Table,
  stored: object,
): ChangeTables[Table] =>
  Object.fromEntries(
    Object.keys(shapes[table].fields).map((field) => [field, asJson(Reflect.get(stored, field))]),
  ) as unknown as ChangeTables[Table];
