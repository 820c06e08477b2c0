import anyAscii from 'any-ascii';
import { forEachInBoth, has, type Bitset } from '@yellow-thread/core/groups';
import { rollUp } from '@yellow-thread/core/report';
import type { EntityManager, InferEntity } from '@mikro-orm/postgresql';
import { asCode } from '../codebook/index.js';
import {
  CodeEntity,
  QuestionEntity,
  rows,
  ThemeEntity,
  type QuestionRow,
  VariableEntity,
} from '../database/index.js';
import { readLabels, readMaterial, readPeople, type People } from '../groups/index.js';
import type { RespondentField, RespondentValue } from './files/index.js';
import { respondentTableTexts } from '../wording/report.js';

export interface RespondentTable {
  fields: RespondentField[];
  pages: () => AsyncGenerator<RespondentValue[][]>;
}

/** Values a page of rows holds, whatever the number of columns. */
const PAGE_VALUES = 100_000;
const MOST_ROWS = 500;
type Value = string | number | boolean | null;

/** A respondent as a page of the file is made from. */
interface PagePerson {
  id: number;
  /** Their place among all people. */
  i: number;
  externalId: string;
  background: Record<string, Value>;
  /** Their answers' texts by question. */
  texts: Record<string, string>;
}

/** A column, and what it holds of a respondent. */
interface FileColumn extends RespondentField {
  read: (person: PagePerson) => RespondentValue;
}

/**
 * One row a respondent: id, weight, background, and for each question whether it was answered and settled, how many
 * mentions there are, a column of 0 and 1 a code and a theme, and the text; empty where something is not decided.
 *
 * @param within ids of the respondents that are wanted; null for everybody
 */
export async function readRespondentTable(
  em: EntityManager,
  studyId: number,
  within: readonly number[] | null,
): Promise<RespondentTable> {
  const people = await readPeople(em, studyId);
  const variables = await em.find(VariableEntity, { studyId }, { orderBy: { position: 'asc' } });
  const questions = await em.find(QuestionEntity, { studyId }, { orderBy: { position: 'asc' } });
  const name = namer();
  const columns: FileColumn[] = [
    {
      name: name('id'),
      type: 'string',
      title: respondentTableTexts.respondent,
      values: [],
      description: respondentTableTexts.surveysOwnId,
      read: ({ externalId }) => externalId,
    },
  ];
  const { weights } = people;
  if (weights)
    columns.push({
      name: name('weight'),
      type: 'number',
      title: respondentTableTexts.weight,
      values: [],
      description: respondentTableTexts.howManyRespondentsOne,
      read: ({ i }) => weights[i]!,
    });
  for (const variable of variables)
    columns.push(await backgroundColumn(em, studyId, variable, name(variable.name)));
  const book = {
    codes: (await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } })).map(asCode),
    themes: await em.find(ThemeEntity, { studyId }, { orderBy: { position: 'asc' } }),
  };
  for (const [q, question] of questions.entries())
    columns.push(
      ...(await questionColumns(em, { people, question, book, prefix: `q${q + 1}`, name })),
    );
  const wanted = within ? [...within].sort((x, y) => x - y) : [...people.ids];
  const size = Math.max(1, Math.min(MOST_ROWS, Math.floor(PAGE_VALUES / columns.length)));
  return {
    fields: columns.map(({ name: named, type, title, description, values, isLong = false }) => ({
      name: named,
      type,
      title,
      description,
      values,
      isLong,
    })),
    pages: async function* () {
      for (let at = 0; at < wanted.length; at += size) {
        const page = await readPage(em, people, wanted.slice(at, at + size));
        yield page.map((person) => columns.map(({ read }) => read(person)));
      }
    },
  };
}

async function readPage(
  em: EntityManager,
  people: People,
  ids: readonly number[],
): Promise<PagePerson[]> {
  const found = await rows<Omit<PagePerson, 'i'>>(
    em,
    `select p.id, p.external_id as "externalId", p.background,
       coalesce((select jsonb_object_agg(r.question_id, r.text) from response r
         where r.respondent_id = p.id), '{}') as texts
     from respondent p where p.id = any(:ids::int[]) order by p.id`,
    { ids },
  );
  return found.map((person) => ({ ...person, i: people.indexOf(person.id) }));
}

const yesNo = respondentTableTexts.yesNo.map((label, value) => ({ value, label }));
const mentioned = respondentTableTexts.mentioned.map((label, value) => ({ value, label }));

async function backgroundColumn(
  em: EntityManager,
  studyId: number,
  { id, name: title, kind, derived }: InferEntity<typeof VariableEntity>,
  name: string,
): Promise<FileColumn> {
  const isCategory = kind === 'category' || derived !== null;
  const field = { name, title, description: respondentTableTexts.background, values: [] };
  if (isCategory) {
    const { labels, labelOf } = await readLabels(em, studyId, id);
    return {
      ...field,
      type: 'string',
      values: labels.map((label) => ({ value: label, label })),
      read: (person) => labelOf(person.id),
    };
  }
  const read = ({ background }: PagePerson): RespondentValue => {
    const value = background[id] ?? null;
    return typeof value === 'boolean' ? Number(value) : value;
  };
  if (kind === 'yes_no')
    return {
      ...field,
      type: 'integer',
      values: yesNo,
      description: respondentTableTexts.background1Yes0,
      read,
    };
  return { ...field, type: kind === 'number' ? 'number' : 'date', read };
}

interface Book {
  codes: ReturnType<typeof asCode>[];
  themes: InferEntity<typeof ThemeEntity>[];
}

async function questionColumns(
  em: EntityManager,
  {
    people,
    question: { id, label, wording },
    book: { codes, themes },
    prefix,
    name,
  }: {
    people: People;
    question: QuestionRow;
    book: Book;
    prefix: string;
    name: (wanted: string) => string;
  },
): Promise<FileColumn[]> {
  const material = await readMaterial(em, people, id);
  const { asked, answered, decided } = material;
  const flag = (holds: boolean) => (holds ? 1 : 0);
  const column = (
    suffix: string,
    about: Pick<RespondentField, 'title' | 'description'> & Partial<RespondentField>,
    read: FileColumn['read'],
  ): FileColumn => ({
    name: name(`${prefix}_${suffix}`),
    type: 'integer',
    values: [],
    ...about,
    read,
  });
  const yes = (suffix: string, description: string, set: Bitset) =>
    column(suffix, { title: label, description, values: yesNo }, ({ i }) => flag(has(set, i)));
  const counts = new Map<number, number>();
  const count = (i: number) => counts.set(i, (counts.get(i) ?? 0) + 1);
  for (const codeId of material.codes.keys()) {
    const row = material.rowOf(codeId, 'decided');
    forEachInBoth(row.mentioned, answered, count);
    for (const i of row.again) if (has(answered, i)) count(i);
  }
  const ofRow = (
    suffix: string,
    about: Pick<RespondentField, 'title' | 'description'>,
    { mentioned: who, undecided }: ReturnType<typeof rollUp>,
  ) =>
    column(suffix, { ...about, values: mentioned }, ({ i }) =>
      has(answered, i) && !(undecided && has(undecided, i)) ? flag(has(who, i)) : null,
    );
  return [
    yes('asked', respondentTableTexts.n1WhenAsked(wording), asked),
    yes('answered', respondentTableTexts.n1WhenAnswered, answered),
    yes('settled', respondentTableTexts.n1WhenCodesAnswer, decided),
    column(
      'mentions',
      { title: label, description: respondentTableTexts.howManyMentionsAnswer },
      ({ i }) => (has(decided, i) ? (counts.get(i) ?? 0) : null),
    ),
    ...codes.map((code) =>
      ofRow(
        code.name,
        {
          title: `${label}: ${code.name}`,
          description: respondentTableTexts.whenMentioned(code.name, code.definition),
        },
        material.rowOf(code.id, 'decided'),
      ),
    ),
    ...themes.flatMap((theme) => {
      const its = codes.filter(({ themeId }) => themeId === theme.id);
      if (its.length === 0) return [];
      const about = {
        title: respondentTableTexts.theme(label, theme.name),
        description: respondentTableTexts.whenThemeMentioned(theme.name),
      };
      const row = rollUp(
        theme.id,
        its.map((code) => material.rowOf(code.id, 'decided')),
      );
      return [ofRow(`theme_${theme.name}`, about, row)];
    }),
    column(
      'text',
      { title: label, description: wording, type: 'string', isLong: true },
      ({ texts }) => texts[id] ?? null,
    ),
  ];
}

const LONGEST = 32;
/** Words that R, SPSS or Stata keep for themselves. */
const reserved = new Set(
  'all and by eq ge gt le lt ne not or to with if else repeat while function for next break true false null inf na nan in using byte int long float double str strl'.split(
    ' ',
  ),
);

/**
 * Names that R, SPSS and Stata take: Latin letters, digits and underscores, each once, no longer than 32; other scripts
 * are transliterated.
 */
function namer(): (wanted: string) => string {
  const taken = new Set<string>();
  return (wanted) => {
    const plain = anyAscii(wanted)
      .toLowerCase()
      .replaceAll(/['’]/gu, '')
      .replaceAll(/[^a-z0-9]+/gu, '_')
      .replaceAll(/^_+|_+$/gu, '');
    const start = /^[a-z]/u.test(plain) && !reserved.has(plain) ? plain : `v_${plain}`;
    for (let i = 1; ; i++) {
      const end = i === 1 ? '' : `_${i}`;
      const name = start.slice(0, LONGEST - end.length).replace(/_+$/u, '') + end;
      if (taken.has(name)) continue;
      taken.add(name);
      return name;
    }
  };
}
