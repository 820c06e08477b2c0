import type { Agreement, CodeAgreement, ListedReading } from '@yellow-thread/contract';
import { coderNames, listNames, isOwnReading } from '@yellow-thread/core/agreement';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { agreementFileAddress, useAgreement } from '../data/agreement.js';
import type { DrawnCodebook } from '../data/codebook.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Choice } from '../parts/field.js';
import { Menu, MenuFile } from '../parts/menu.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { asPercent } from '../lib/numbers.js';
import { CodeTable, type ChosenRow } from './codeTable.js';
import { Differing } from './differing.js';
import { coefficient } from './words.js';
import { comparedTexts } from './texts.js';

const files = [
  ['xlsx', comparedTexts.workbookXlsx, comparedTexts.agreementCodeCode],
  ['csv', comparedTexts.csv, comparedTexts.anyOtherProgram],
] as const;

/** How far a second reading agrees with the first: overall, code by code, and where the two differ. */
export function Compared({
  reading,
  codebook,
}: {
  reading: ListedReading;
  codebook: DrawnCodebook;
}) {
  const { study, question } = useStudyLocation();
  const [against, setAgainst] = useState<string | null>(null);
  const agreement = useAgreement(study.id, question.id, reading.id, against);
  const [chosen, choose] = useState<ChosenRow | null>(null);
  if (agreement.isError) return <PageProblem error={agreement.error} />;
  if (!agreement.data) return <Waiting what={comparedTexts.comparison} />;
  // with another reading in the place of the first coding
  const compared = agreement.data.reading;
  const names = coderNames(compared);
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-5 flex max-w-5xl items-baseline justify-between gap-x-6">
        <div>
          <h1>
            {isOwnReading(compared)
              ? comparedTexts.twice(compared.reader)
              : comparedTexts.and(listNames(compared.firstCoders), compared.reader)}
          </h1>
          <p className="figures text-soft">{comparedTexts.whichAnswers(reading)}</p>
          {isOwnReading(compared) && (
            <p className="text-soft">{comparedTexts.onePersonTwiceShows}</p>
          )}
          {agreement.data.others.length > 0 && (
            <p className="mt-2">
              <Choice
                label={comparedTexts.comparedWith}
                value={against ?? ''}
                onChange={(event) => {
                  setAgainst(event.target.value || null);
                  choose(null);
                }}
              >
                <option value="">
                  {comparedTexts.whoSettledFirst(listNames(reading.firstCoders))}
                </option>
                {agreement.data.others.map((other) => (
                  <option key={other.id} value={other.id}>
                    {comparedTexts.otherReading(other.reader, other.answers)}
                  </option>
                ))}
              </Choice>
            </p>
          )}
        </div>
        <span className="flex shrink-0 items-center gap-4">
          <Link to=".." relative="path" className="underline">
            {comparedTexts.allSecondReadings}
          </Link>
          <Menu
            name={
              <>
                <Download size={15} aria-hidden /> {comparedTexts.files}
              </>
            }
          >
            {files.map(([format, name, about]) => (
              <MenuFile
                key={format}
                name={name}
                about={about}
                address={agreementFileAddress(study.id, question.id, reading.id, {
                  format,
                  against,
                })}
                isPage={false}
              />
            ))}
          </Menu>
        </span>
      </header>
      <Overall agreement={agreement.data} />
      <CodeTable
        agreement={agreement.data}
        codebook={codebook}
        names={names}
        chosen={chosen}
        onChoose={choose}
      />
      <Differing
        reading={reading.id}
        isOfFirst={against === null}
        answers={agreement.data.differing}
        names={names}
        only={chosen?.codeIds ?? null}
        codebook={codebook}
        onAll={() => choose(null)}
      />
    </main>
  );
}

function Overall({
  agreement: { sameSets, overall, alphaOfSets, everybody, differing },
}: {
  agreement: Agreement;
}) {
  const { count, n, interval } = sameSets;
  const figures: [string, string, string][] = [
    [
      comparedTexts.exactlySameCodes,
      comparedTexts.of(count, n),
      interval
        ? comparedTexts.n95Interval(interval.map((end) => asPercent(end, n)).join(' to '))
        : '',
    ],
    [
      comparedTexts.cohensKappaAllCodes,
      coefficient(overall.kappa, overall.interval),
      comparedTexts.eachCodeEachAnswer,
    ],
    [
      comparedTexts.krippendorffsAlphaSetsCodes,
      coefficient(alphaOfSets),
      comparedTexts.partlySameCountsPartly,
    ],
    ...(everybody
      ? [
          [
            comparedTexts.alphaAllCodings(everybody.coders),
            coefficient(everybody.alphaOfSets),
            comparedTexts.firstOneEverySecond,
          ] satisfies [string, string, string],
        ]
      : []),
  ];
  return (
    <>
      <dl className="mb-3 flex max-w-5xl flex-wrap gap-x-10 gap-y-3 border-y border-rule py-3">
        {figures.map(([name, value, said]) => (
          <div key={name}>
            <dt className="text-soft">{name}</dt>
            <dd className="figures text-[18px] font-semibold">{value}</dd>
            <dd className="text-[13px] text-soft">{said}</dd>
          </div>
        ))}
      </dl>
      <p className="mb-6 max-w-prose">{inShort(overall, differing.length, n)}</p>
    </>
  );
}

/** What the figures allow, in a sentence. */
function inShort(overall: CodeAgreement, differing: number, n: number): string {
  if (differing === 0) return comparedTexts.bothTimesEveryAnswer;
  const rest = comparedTexts.differAnswersDiscussThem(differing, n);
  switch (overall.state) {
    case 'firm':
      return comparedTexts.wholeTwoReadingsAgree(rest);
    case 'tentative':
      return comparedTexts.wholeTwoReadingsAgreeWell(rest);
    case 'low':
      return comparedTexts.wholeTwoReadingsAgreeToo(rest);
    case 'little_evidence':
      return comparedTexts.tooFewCodesGiven(rest);
  }
}
