/**
 * Makes the demo study's files from its sources: the sheet as CSV and XLSX, and study.json with the
 * codebook and a random 20% of the answers to each question coded by hand. Run by `npm run demo`; the
 * files are kept in git, so that starting needs no build.
 */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { writeCsv, type CsvValue } from '@yellow-thread/core/exchange';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { isNoAnswer, NO_ANSWERS, noAnswerKeys } from '@yellow-thread/core/sheet';
import { randomSource, shuffle } from '@yellow-thread/core/statistics';
import Excel from 'exceljs';
import { codebook } from './codebook.js';
import { readDemoPeople, type DemoPerson } from './people.js';

const noAnswers = noAnswerKeys(NO_ANSWERS);

const SEED = 2026;
const SAMPLE_SHARE = 0.2;
const out = (name: string) => fileURLToPath(new URL(`../${name}`, import.meta.url));

const questions = [
  'What one thing would most improve your crossings?',
  'What do you value most about having the ferry?',
  'If you decided against the ferry in the past year, what was the reason?',
];
const labels = ['Improve', 'Value', 'Decided against'];
const head = [
  'Respondent',
  'Home',
  'Age group',
  'Traveller',
  'Crossings a month',
  'With a car',
  'Mobility need',
  'Satisfaction (0–10)',
  'Date',
  'Wave',
  'Weight',
  ...questions,
];

const next = randomSource(SEED);
const draw = () => next() / 2 ** 32;
const people = shuffle(readDemoPeople(), next);

/** Island homes answered more readily than the mainland and visitors: the weights make up for it. */
const weightOf: Record<string, number> = {
  Carrow: 1.55,
  Tye: 0.78,
  'Little Tye': 0.62,
  Hask: 0.66,
  Elsewhere: 1.48,
};

function dateIn(wave: 'spring' | 'autumn'): string {
  const first = Date.UTC(2026, wave === 'spring' ? 3 : 8, wave === 'spring' ? 6 : 14);
  return new Date(first + Math.floor(draw() * 35) * 86_400_000).toISOString().slice(0, 10);
}

const yesNo = (value: boolean) => (value ? 'yes' : 'no');
const rows = people.map((person: DemoPerson, i): CsvValue[] => {
  const wave = i < people.length / 2 ? 'spring' : 'autumn';
  return [
    `BS-${String(i + 1).padStart(4, '0')}`,
    person.home,
    person.ageGroup,
    person.traveller,
    person.crossings,
    yesNo(person.withCar),
    yesNo(person.mobilityNeed),
    person.satisfaction,
    dateIn(wave),
    wave,
    Number((weightOf[person.home]! * (0.9 + 0.2 * draw())).toFixed(2)),
    ...person.answers.map((answer) => answer.text),
  ];
});

// byte order mark: without it, spreadsheet programs read UTF-8 as something else
writeFileSync(out('brindle-sound.csv'), `\uFEFF${writeCsv([head, ...rows])}`);

const workbook = new Excel.Workbook();
workbook.created = workbook.modified = new Date(Date.UTC(2026, 10, 1));
const worksheet = workbook.addWorksheet('Passengers 2026');
worksheet.addRows([head, ...rows]);
worksheet.getRow(1).font = { bold: true };
worksheet.views = [{ state: 'frozen', ySplit: 1 }];
await workbook.xlsx.writeFile(out('brindle-sound.xlsx'));

const samples = questions.map((_, q) => {
  const answered = people.flatMap((one, i) =>
    isNoAnswer(one.answers[q]!.text, noAnswers) ? [] : [i],
  );
  const seed = SEED + q;
  const chosen = simpleRandomSample(
    answered.length,
    Math.round(SAMPLE_SHARE * answered.length),
    seed,
  );
  return {
    seed,
    answers: chosen.map((place) => {
      const row = answered[place]!;
      return { row, mentions: people[row]!.answers[q]!.mentions };
    }),
  };
});
writeFileSync(
  out('study.json'),
  JSON.stringify(
    {
      name: 'Brindle Sound ferry, passengers 2026',
      purpose:
        'What would bring people back to the ferry, and what must not be lost? For the harbour board’s decision on the next timetable and vessel.',
      labels,
      themes: codebook,
      samples,
    },
    null,
    1,
  ),
);

const counts = new Map<string, number>();
let substantive = 0;
for (const person of people)
  for (const { text, mentions } of person.answers) {
    if (isNoAnswer(text, noAnswers)) continue;
    substantive += 1;
    for (const code of new Set(mentions.map((mention) => mention.code)))
      counts.set(code, (counts.get(code) ?? 0) + 1);
  }
const known = new Set(codebook.flatMap((theme) => theme.codes.map((code) => code.key)));
for (const code of counts.keys()) if (!known.has(code)) throw new Error(`Unknown code ${code}`);
console.log(`${people.length} respondents, ${substantive} substantive answers`);
console.table(
  [...counts]
    .sort(([, x], [, y]) => y - x)
    .map(([code, count]) => ({ code, count, percent: ((100 * count) / substantive).toFixed(1) })),
);
