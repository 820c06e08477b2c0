import type {
  AsideMarks,
  BackgroundValue,
  Derived,
  Bundle,
  BundleCode,
  Code,
  CodeClosing,
  Group,
  LineCut,
  Mention,
  ModelDecision,
  Note,
  SecondReading,
  SecondReadingAnswer,
  Settlement,
  SpotCheck,
  SpotCheckAnswer,
  ExcludedWord,
  Suggestion,
  Theme,
  Variable,
} from '@yellow-thread/contract';
import type { RecordsDiff } from '@yellow-thread/core/coding';

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
  struck_word: ExcludedWord;
  spot_check: SpotCheck;
  spot_check_answer: SpotCheckAnswer;
  second_reading: SecondReading;
  second_reading_answer: SecondReadingAnswer;
  code_closing: CodeClosing;
  model_decision: ModelDecision;
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
  fields: Record<string, string>;
  /** What records have that were kept before there was such a field. */
  formerly?: Record<string, unknown>;
}

/** In the order in which rows may be inserted; they are deleted in the reverse. */
export const shapes: Record<keyof ChangeTables, TableShape> = {
  study: {
    key: ['id'],
    fields: { id: 'int', name: 'text', purpose: 'text', asides: 'jsonb', setAside: 'jsonb' },
  },
  question: {
    key: ['id'],
    fields: { id: 'int', studyId: 'int', position: 'int', label: 'text', wording: 'text' },
  },
  variable: {
    key: ['id'],
    fields: {
      id: 'int',
      studyId: 'int',
      position: 'int',
      name: 'text',
      kind: 'text',
      derived: 'jsonb',
    },
  },
  category: {
    key: ['variableId', 'value'],
    fields: { variableId: 'int', value: 'text', label: 'text', position: 'int' },
  },
  respondent: { key: ['id'], fields: { id: 'int', studyId: 'int', background: 'jsonb' } },
  theme: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      name: 'text',
      ink: 'text',
      stitch: 'text',
      position: 'int',
    },
  },
  code: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      themeId: 'uuid',
      name: 'text',
      definition: 'text',
      include: 'text',
      exclude: 'text',
      position: 'int',
      archived: 'boolean',
      questions: 'jsonb',
    },
    formerly: { archived: false },
  },
  bundle: {
    key: ['id'],
    fields: { id: 'uuid', studyId: 'int', name: 'text', position: 'int' },
  },
  bundle_code: {
    key: ['bundleId', 'codeId'],
    fields: { bundleId: 'uuid', codeId: 'uuid' },
  },
  mention: {
    key: ['id'],
    fields: {
      id: 'uuid',
      responseId: 'int',
      codeId: 'uuid',
      coderId: 'int',
      start: 'int',
      end: 'int',
      origin: 'text',
      createdAt: 'timestamptz',
      typical: 'boolean',
    },
    formerly: { typical: false },
  },
  settlement: {
    key: ['responseId', 'coderId'],
    fields: {
      responseId: 'int',
      coderId: 'int',
      settledAt: 'timestamptz',
      assisted: 'boolean',
    },
    formerly: { assisted: false },
  },
  note: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      responseId: 'int',
      start: 'int',
      end: 'int',
      respondentId: 'int',
      codeId: 'uuid',
      text: 'text',
      unsure: 'boolean',
      authorId: 'int',
      createdAt: 'timestamptz',
    },
  },
  line_cut: {
    key: ['responseId', 'at'],
    fields: { responseId: 'int', at: 'int', joined: 'boolean' },
  },
  suggestion: {
    key: ['codeId', 'responseId'],
    fields: {
      codeId: 'uuid',
      responseId: 'int',
      state: 'text',
      decidedBy: 'int',
      decidedAt: 'timestamptz',
      bulk: 'boolean',
    },
  },
  saved_group: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      name: 'text',
      description: 'text',
      rule: 'jsonb',
      position: 'int',
    },
  },
  struck_word: {
    key: ['id'],
    fields: { id: 'uuid', studyId: 'int', codeId: 'uuid', word: 'text' },
  },
  spot_check: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      questionId: 'int',
      codeId: 'uuid',
      side: 'text',
      drawnFrom: 'int',
      expected: 'double precision',
      drawnBy: 'int',
      drawnAt: 'timestamptz',
    },
  },
  spot_check_answer: {
    key: ['checkId', 'responseId'],
    fields: { checkId: 'uuid', responseId: 'int', verdict: 'text' },
  },
  second_reading: {
    key: ['id'],
    fields: {
      id: 'uuid',
      studyId: 'int',
      questionId: 'int',
      readerId: 'int',
      firstCoders: 'jsonb',
      drawnFrom: 'int',
      drawn: 'int',
      drawnBy: 'int',
      drawnAt: 'timestamptz',
    },
  },
  second_reading_answer: {
    key: ['readingId', 'responseId'],
    fields: {
      readingId: 'uuid',
      responseId: 'int',
      firstCodes: 'jsonb',
      secondCodes: 'jsonb',
      verdicts: 'jsonb',
    },
  },
  code_closing: {
    key: ['questionId', 'codeId'],
    fields: {
      studyId: 'int',
      questionId: 'int',
      codeId: 'uuid',
      how: 'text',
      expected: 'double precision',
      lastResponseId: 'int',
      closedBy: 'int',
      closedAt: 'timestamptz',
    },
  },
  model_decision: {
    key: ['questionId'],
    fields: {
      studyId: 'int',
      questionId: 'int',
      runId: 'int',
      relied: 'jsonb',
      lastResponseId: 'int',
      sampleId: 'int',
      decidedBy: 'int',
      decidedAt: 'timestamptz',
    },
  },
};
