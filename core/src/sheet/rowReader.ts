import { blankAsides } from '../text/index.js';
import {
  cleanText,
  readBackground,
  readTick,
  readTimes,
  splitParts,
  withoutErrors,
} from './cells.js';
import { isNoAnswer, noAnswerKeys } from './noAnswer.js';
import { nameAsWritten } from './heads.js';
import {
  isBackground,
  type BackgroundValue,
  type ColumnSetting,
  type BackgroundKind,
  type HeadColumn,
  type SheetSettings,
} from './settings.js';

export interface PlannedVariable {
  name: string;
  kind: BackgroundKind;
}

export interface PlannedQuestion {
  wording: string;
  label: string;
  /** Name of the closed variable that the question belongs to; '' for none. */
  of: string;
}

export interface PlannedResponse {
  text: string;
  noAnswer: boolean;
  /** Codes given before, by their place among the codes, one entry a mention. */
  codes: number[];
  /** Its codes were decided before: some cell for codes was filled. */
  settled: boolean;
}

/** One row as it will be stored. */
export interface PlannedRow {
  /** What stands in the id column, cleaned; '' when blank or when there is no such column. */
  externalId: string;
  weight: number | null;
  /** In the order of the variables; shorter while choices are still being found. */
  background: (BackgroundValue | null)[];
  /** In the order of the questions; null where the question was not asked. */
  responses: (PlannedResponse | null)[];
}

/** Choices and codes named inside cells, found by reading all rows once. */
export interface FoundNames {
  /** Names of yes-or-no variables. */
  choices: string[];
  codes: string[];
}

export type RowReader = ReturnType<typeof rowReader>;

/**
 * Makes the function that reads rows of a sheet as they will be stored. Variables and codes that are named
 * inside cells are added to `variables` and `codes` as they turn up; those in `found` stand there from the
 * start, so that a second reading knows all of them.
 */
export function rowReader(
  columns: readonly HeadColumn[],
  settings: SheetSettings,
  found: FoundNames = { choices: [], codes: [] },
) {
  if (settings.columns.length !== columns.length)
    throw new RangeError(
      `${columns.length} columns need as many settings, not ${settings.columns.length}.`,
    );
  const placed = settings.columns.map((column, c) => ({ ...column, c }));
  const having = (role: ColumnSetting['role']) => placed.filter((column) => column.role === role);

  const variables = registry<PlannedVariable>((variable) => variable.name);
  const codes = registry<string>((code) => code.toLowerCase());
  const background: BackgroundColumn[] = [];
  for (const { c, role, name, writing } of placed)
    if (isBackground(role) || role === 'ticked')
      background.push({
        c,
        place: variables.place({ name, kind: role === 'ticked' ? 'yes_no' : role }),
        read:
          role === 'ticked' ? readTick : remembered((cell) => readBackground(cell, role, writing)),
      });
  const choices = having('choices');
  for (const name of found.choices) variables.place({ name, kind: 'yes_no' });
  const choicePlaces = choices.map(() => new Set<number>());
  for (const [k, { name }] of choices.entries())
    for (const choice of found.choices)
      if (choice.startsWith(`${name}: `))
        choicePlaces[k]!.add(variables.place({ name: choice, kind: 'yes_no' }));

  const questions = registry<PlannedQuestion>((question) => question.wording);
  const questionColumns = having('question').map(({ c, name, of }) => ({
    c,
    of,
    place: questions.place({ wording: name, label: labelOf(name, columns[c]!.code), of }),
  }));
  for (const name of found.codes) codes.place(name);
  const codeColumns = having('codes').map(({ c, name, separator }) => ({
    c,
    separator,
    question: questions.all.findIndex((question) => question.wording === name),
    code: separator === '' ? codes.place(cleanName(nameAsWritten(columns, c))) : -1,
  }));
  const [idColumn] = having('id');
  const [weightColumn] = having('weight');

  const keys = noAnswerKeys(settings.noAnswers);
  const keysOf = questions.all.map(({ wording }) => {
    const despite = noAnswerKeys(
      settings.answersDespite.filter((one) => one.question === wording).map((one) => one.text),
    );
    return despite.keys.size === 0
      ? keys
      : { ...keys, keys: new Set([...keys.keys].filter((key) => !despite.keys.has(key))) };
  });
  const hasAsides = settings.asides.brackets.length + settings.asides.leading.length > 0;

  const readCodes = (cells: readonly string[]) => {
    const given = questions.all.map(() => ({ codes: [] as number[], settled: false }));
    for (const { c, separator, question, code } of codeColumns) {
      const cell = cells[c] ?? '';
      if (question < 0 || cell.trim() === '') continue;
      given[question]!.settled = true;
      if (separator === '')
        for (let n = readTimes(cell); n > 0; n--) given[question]!.codes.push(code);
      else
        for (const name of splitParts(cleanText(cell), separator))
          given[question]!.codes.push(codes.place(name));
    }
    return given;
  };

  const readResponses = (cells: readonly string[]): (PlannedResponse | null)[] => {
    const texts = questions.all.map(() => '');
    for (const { c, place } of questionColumns) {
      const part = cleanText(cells[c] ?? '');
      if (part.trim() !== '') texts[place] = texts[place] ? `${texts[place]}\n${part}` : part;
    }
    const given = codeColumns.length > 0 ? readCodes(cells) : null;
    return texts.map((text, q) => {
      if (text === '' && questions.all[q]!.of !== '') return null;
      const said = hasAsides ? blankAsides(text, settings.asides) : text;
      const noAnswer = isNoAnswer(said, keysOf[q]!);
      return { text, noAnswer, ...(given?.[q] ?? { codes: [], settled: false }) };
    });
  };

  return {
    variables: variables.all,
    questions: questions.all,
    codes: codes.all,
    /** Wordings that existing codes are for although no column holds answers to them. */
    codesWithoutQuestion: codeColumns.filter((column) => column.question < 0).length,
    /** Background columns and where the values of each stand. */
    background: background.map(({ c, place }) => ({ c, place })),
    /** The names found inside cells so far. */
    found: (): FoundNames => ({
      choices: [...choicePlaces.flatMap((places) => [...places])].map(
        (place) => variables.all[place]!.name,
      ),
      codes: [...codes.all],
    }),
    read(written: readonly string[]): PlannedRow {
      const cells = withoutErrors(written);
      const values = variables.all.map((): BackgroundValue | null => null);
      for (const { c, place, read } of background) values[place] = read(cells[c] ?? '');
      for (const [k, { c, name, separator }] of choices.entries()) {
        const cell = cells[c] ?? '';
        if (cell.trim() === '') continue;
        const places = choicePlaces[k]!;
        for (const place of places) values[place] = false;
        for (const choice of splitParts(cleanText(cell), separator)) {
          const place = variables.place({ name: `${name}: ${choice}`, kind: 'yes_no' });
          places.add(place);
          values[place] = true;
        }
      }
      return {
        externalId: idColumn ? cleanText(cells[idColumn.c] ?? '').trim() : '',
        weight: weightColumn
          ? (readBackground(cells[weightColumn.c] ?? '', 'number', weightColumn.writing) as
              number | null)
          : null,
        background: values,
        responses: readResponses(cells),
      };
    },
  };
}

interface BackgroundColumn {
  c: number;
  place: number;
  read: (cell: string) => BackgroundValue | null;
}

const MOST_REMEMBERED = 1_000;

/** Background repeats itself: what a cell says is computed once for the first thousand that differ. */
function remembered(read: (cell: string) => BackgroundValue | null): BackgroundColumn['read'] {
  const known = new Map<string, BackgroundValue | null>();
  return (cell) => {
    let value = known.get(cell);
    if (value !== undefined) return value;
    value = read(cleanText(cell));
    if (known.size < MOST_REMEMBERED) known.set(cell, value);
    return value;
  };
}

/** Things by their key, each with a place of its own in the order in which they came. */
function registry<Item>(keyOf: (item: Item) => string) {
  const all: Item[] = [];
  const places = new Map<string, number>();
  return {
    all,
    place(item: Item): number {
      const key = keyOf(item);
      let place = places.get(key);
      if (place === undefined) {
        place = all.push(item) - 1;
        places.set(key, place);
      }
      return place;
    },
  };
}

const cleanName = (name: string) => cleanText(name).replaceAll(/\s+/gu, ' ').trim();

/** The code and the first few words of a question, to distinguish it where space is short. */
export function labelOf(wording: string, code: string): string {
  const words = wording.trim().split(/\s+/u);
  const few = words.slice(0, 5).join(' ');
  const label = `${code ? `${code} ` : ''}${few}${words.length > 5 ? ' …' : ''}`;
  return label.length > 80 ? `${label.slice(0, 79)}…` : label;
}
