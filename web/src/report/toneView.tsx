import type { Question, StudyDetail, ToneCell } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { Link } from 'react-router';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { toneFileAddress, useToneReport } from '../data/tone.js';
import { useAddressPart } from '../frame/address.js';
import { asPercent } from '../lib/numbers.js';
import { Choice } from '../parts/field.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { RangeMark } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { toneViewTexts as texts } from './toneTexts.js';

/** What has more values than this makes no columns. */
const MOST_COLUMNS = 12;

/** How people speak of themes and codes, in all and by group: only what a random sample that was read bears out. */
export function ToneView({ study, question }: { study: StudyDetail; question: Question }) {
  const [by, setBy] = useAddressPart('by');
  const report = useToneReport(study.id, question.id, by ?? '');
  const codebook = useDrawnCodebook(study.id);
  const toCheck = `/studies/${study.id}/questions/${question.id}/tone?view=sample`;
  if (report.isError) return <PageProblem error={report.error} />;
  if (!report.data || !codebook) return <Waiting what={texts.theTone} />;
  const { sample, fewest, withModels, columns, rows } = report.data;
  if (sample.answers === 0 || sample.read < sample.answers)
    return (
      <EmptyState title={texts.notYet}>
        <p>{texts.notYetWhy(sample.read, sample.answers)}</p>
        <Link to={toCheck} className="underline">
          {texts.check}
        </Link>
      </EmptyState>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5 max-sm:px-3">
        <Choice label={texts.by} value={by ?? ''} onChange={({ target }) => setBy(target.value)}>
          <option value="">{texts.nothing}</option>
          {study.variables
            .filter(({ values }) => values <= MOST_COLUMNS)
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </Choice>
        <Link to={toCheck} className="underline">
          {texts.check}
        </Link>
        <a
          href={toneFileAddress(study.id, question.id, by ?? '')}
          className="ml-auto inline-flex items-center gap-1.5 underline"
          download
        >
          <Download size={15} aria-hidden /> {texts.csv}
        </a>
      </div>
      <div className="list overflow-x-auto px-6 pb-8 max-sm:px-3">
        <table className="mt-3">
          <thead>
            <tr className="border-b border-rule text-left align-bottom">
              <th scope="col" className="py-1 pr-6 font-medium">
                {texts.theme}
              </th>
              {columns.map(({ label, answered }) => (
                <th key={label} scope="col" className="min-w-52 py-1 pr-6 font-medium">
                  {label} <span className="figures font-normal text-soft">{answered}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ themeId, codeId, name, cells }) => (
              <tr key={`${themeId} ${codeId}`} className="border-b border-rule align-top">
                <th scope="row" className="min-w-44 py-2 pr-6 text-left font-normal">
                  <RowName {...{ themeId, codeId, name, codebook }} />
                </th>
                {cells.map((cell, c) => (
                  <td key={columns[c]!.label} className="py-2 pr-6">
                    <Cell cell={cell} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-4 max-w-prose text-[13px] text-soft">
          {texts.about(sample.answers, fewest, withModels)}
        </p>
      </div>
    </>
  );
}

function RowName({
  themeId,
  codeId,
  name,
  codebook,
}: {
  themeId: string | null;
  codeId: string | null;
  name: string;
  codebook: DrawnCodebook;
}) {
  if (codeId === null && themeId === null) return texts.all;
  const drawn =
    codeId === null ? codebook.themes.find(({ id }) => id === themeId) : codebook.byId.get(codeId);
  return (
    <span className={`flex items-center gap-2 ${codeId === null ? 'font-semibold' : 'pl-4'}`}>
      {drawn && <StitchMark look={drawn.look} width={18} />}
      <span style={{ color: drawn?.look.ink }}>{name}</span>
    </span>
  );
}

/** The two shares of a cell, each as a line for its interval with a dot at its value, and out of how many. */
function Cell({ cell: { people, sampled, positive, negative } }: { cell: ToneCell }) {
  return (
    <div className="figures flex flex-col gap-0.5 text-[13px]">
      {positive && negative ? (
        <>
          <ToneShare name={texts.positive} share={positive} base={sampled} />
          <ToneShare name={texts.negative} share={negative} base={sampled} />
        </>
      ) : (
        <span className="text-soft">{texts.tooFew}</span>
      )}
      <span className="text-[12px] text-soft">{texts.people(people, sampled)}</span>
    </div>
  );
}

function ToneShare({
  name,
  share,
  base,
}: {
  name: string;
  share: NonNullable<ToneCell['positive']>;
  /** What decides how exactly shares are written. */
  base: number;
}) {
  const { value, interval } = share.estimate ?? {
    value: share.sampleShare,
    interval: share.sampleInterval,
  };
  return (
    <span className="flex items-center gap-2">
      <span className="w-14">{name}</span>
      <RangeMark value={value} interval={interval} width={60} />
      <span className="w-9 text-right">{asPercent(value, base)}</span>
      <span className="whitespace-nowrap text-soft">{texts.interval(...interval, base)}</span>
    </span>
  );
}
