import type { Training, TrainingRun } from '@yellow-thread/contract';
import { Link } from 'react-router';
import type { DrawnCodebook } from '../data/codebook.js';
import { ShareRange } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { Term } from '../help/term.js';
import { Wide } from '../parts/wide.js';
import { sharesTexts } from './texts.js';

/** How many of all who answered mention each code, estimated before everything is read. */
export function Shares({
  training,
  run,
  codebook,
}: {
  training: Training;
  run: TrainingRun;
  codebook: DrawnCodebook;
}) {
  const rows = run.codes
    .flatMap((code) => {
      const drawn = codebook.byId.get(code.codeId);
      const { state, share } = code;
      return drawn && share ? [{ drawn, state, share }] : [];
    })
    .sort((x, y) => y.share.mentioned - x.share.mentioned);
  const first = rows[0];
  if (!first)
    return (
      <p>
        {sharesTexts.sharesCanEstimatedAnswers(training.canEstimate)}
        {!training.canEstimate && (
          <Link to="../code?sample=draw" className="underline">
            {sharesTexts.drawRandomSampleCode}
          </Link>
        )}
      </p>
    );
  const most = Math.max(
    ...rows.flatMap(({ share }) => [
      share.sampleInterval[1],
      ...(share.estimate ? [share.estimate.interval[1]] : []),
    ]),
  );
  return (
    <>
      <p className="max-w-3xl">
        {sharesTexts.drawnRandomSettledModel(first.share.sampled, run.answers)}
        <Term of="difference-estimator">{sharesTexts.differenceEstimator}</Term>
        {sharesTexts.nearerTwoLinesBelow}
      </p>
      <Wide label={sharesTexts.estimatedShares}>
        <table className="mt-4">
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              <th className="py-1.5 pr-6 font-normal">{sharesTexts.code}</th>
              <th className="py-1.5 pr-6 font-normal" colSpan={2}>
                {sharesTexts.sampleAlone}
              </th>
              <th className="py-1.5 pr-6 font-normal" colSpan={2}>
                {sharesTexts.modelsHelp}
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ drawn, state, share }) => {
              const sample = share.mentioned / share.sampled;
              return (
                <tr key={drawn.id} className="border-b border-rule">
                  <th scope="row" className="py-1.5 pr-6 text-left font-normal">
                    <span className="flex items-center gap-2">
                      <StitchMark look={drawn.look} />
                      {drawn.name}
                    </span>
                  </th>
                  <td className="py-1.5 pr-2">
                    <ShareRange
                      label={sharesTexts.sample}
                      value={sample}
                      interval={share.sampleInterval}
                      most={most}
                    />
                  </td>
                  <td className="figures whitespace-nowrap py-1.5 pr-8 text-[13px] text-soft">
                    {sharesTexts.of(
                      share.mentioned,
                      share.sampled,
                      asInterval(share.sampleInterval, share.sampled),
                    )}
                  </td>
                  {share.estimate ? (
                    <>
                      <td className="py-1.5 pr-2">
                        <ShareRange
                          label={sharesTexts.estimate}
                          value={share.estimate.value}
                          interval={share.estimate.interval}
                          most={most}
                        />
                      </td>
                      <td className="figures whitespace-nowrap py-1.5 text-[13px]">
                        {sharesTexts.of2(
                          share.estimate.value,
                          run.answers,
                          asInterval(share.estimate.interval, run.answers),
                        )}
                      </td>
                    </>
                  ) : (
                    <td colSpan={2} className="py-1.5 text-[13px] text-soft">
                      {state === 'too_few'
                        ? sharesTexts.tooFewExamplesModel
                        : sharesTexts.tooFewSampleMention}
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <p className="mt-3 text-[13px] text-soft">
        95% <Term of="interval">{sharesTexts.intervals}</Term>:{' '}
        <Term of="wilson-interval">{sharesTexts.wilsons}</Term>{' '}
        {sharesTexts.sampleWilsonsEquallyExact}
        <Link to="../report?counts=estimated" className="underline">
          {sharesTexts.reportEstimates}
        </Link>
        .
      </p>
    </>
  );
}

const asInterval = ([low, high]: readonly [number, number], base: number) =>
  sharesTexts.to(low, base, high);
