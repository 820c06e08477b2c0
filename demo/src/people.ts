import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** A mention as the author of the answer's source marked it; null for the whole answer. */
export interface TrueMention {
  code: string;
  start: number | null;
  end: number | null;
}

export interface DemoAnswer {
  text: string;
  mentions: TrueMention[];
}

export interface DemoPerson {
  home: string;
  ageGroup: string;
  traveller: string;
  withCar: boolean;
  mobilityNeed: boolean;
  satisfaction: number;
  crossings: number;
  /** One a question; an empty text where it was left blank. */
  answers: [DemoAnswer, DemoAnswer, DemoAnswer];
}

const homes = { C: 'Carrow', T: 'Tye', L: 'Little Tye', H: 'Hask', E: 'Elsewhere' };
const ages = ['16–24', '25–34', '35–44', '45–54', '55–64', '65–74', '75 and over'];
const travellers = {
  r: 'Resident',
  c: 'Commuter',
  b: 'Business',
  s: 'School or college',
  v: 'Visitor',
  h: 'Second home',
};

/**
 * Reads the people of the survey from their source files. A person begins with a line such as
 * `T4r+c 3 12`: home, age group, kind of traveller, flags (c: with a car, m: mobility need), satisfaction,
 * crossings a month. Lines `1 …`, `2 …`, `3 …` are their answers, in which `[key:passage]` marks a
 * passage with its true code and a leading `{key}` the whole answer.
 */
export function readDemoPeople(): DemoPerson[] {
  const folder = fileURLToPath(new URL('people', import.meta.url));
  const lines = readdirSync(folder)
    .toSorted()
    .flatMap((file) => readFileSync(`${folder}/${file}`, 'utf8').split('\n'))
    .filter((line) => line.trim() !== '');
  const people: DemoPerson[] = [];
  for (const line of lines) {
    const answer = /^([123]) ?(.*)$/u.exec(line);
    if (answer) people.at(-1)!.answers[Number(answer[1]) - 1] = readAnswer(answer[2]!);
    else people.push(readPerson(line));
  }
  return people;
}

function readPerson(line: string): DemoPerson {
  const match = /^([CTLHE])([1-7])([rcbsvh])((?:\+[cm])*) (\d+) (\d+)$/u.exec(line);
  if (!match) throw new Error(`Not a person: ${line}`);
  const [, home, age, kind, flags, satisfaction, crossings] = match as unknown as string[];
  const blank = (): DemoAnswer => ({ text: '', mentions: [] });
  return {
    home: homes[home as keyof typeof homes],
    ageGroup: ages[Number(age) - 1]!,
    traveller: travellers[kind as keyof typeof travellers],
    withCar: flags!.includes('c'),
    mobilityNeed: flags!.includes('m'),
    satisfaction: Number(satisfaction),
    crossings: Number(crossings),
    answers: [blank(), blank(), blank()],
  };
}

function readAnswer(marked: string): DemoAnswer {
  const mentions: TrueMention[] = [];
  let rest = marked.replace(/^\{(\w\w)\}\s*/u, (_, code: string) => {
    mentions.push({ code, start: null, end: null });
    return '';
  });
  for (;;) {
    const found = /\[(\w\w):([^\]]*)\]/u.exec(rest);
    if (!found) return { text: rest.trimEnd(), mentions };
    const [whole, code, passage] = found as unknown as [string, string, string];
    mentions.push({ code, start: found.index, end: found.index + passage.length });
    rest = rest.slice(0, found.index) + passage + rest.slice(found.index + whole.length);
  }
}
