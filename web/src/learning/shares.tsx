import type { Training, TrainingRun } from '@yellow-thread/contract';
import { Link } from 'react-router';
import type { DrawnCodebook } from '../data/codebook.js';
import { asCount, asPercent, counted } from '../parts/numbers.js';
import { ShareRange } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { Term } from '../help/term.js';
import { Wide } from '../parts/wide.js';

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
        Shares can be estimated from answers that were drawn at random and settled to the last of
        them{training.canEstimate ? ': there are such now, train again to see what they say.' : '.'}{' '}
        {!training.canEstimate && (
          <Link to="../code?sample=draw" className="underline">
            Draw a random sample in Code
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
        {counted(first.share.sampled, 'answer')} drawn at random and settled, of{' '}
        {asCount(run.answers)}. The model reads the rest; how far it was off on the drawn ones,
        which it had not seen, puts it right (
        <Term of="difference-estimator">difference estimator</Term>). The nearer the two lines below
        are to each other in length, the less the model knows.
      </p>
      <Wide label="Estimated shares">
        <table className="mt-4">
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              <th className="py-1.5 pr-6 font-normal">Code</th>
              <th className="py-1.5 pr-6 font-normal" colSpan={2}>
                from the sample alone
              </th>
              <th className="py-1.5 pr-6 font-normal" colSpan={2}>
                with the model’s help
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
                      label="sample"
                      value={sample}
                      interval={share.sampleInterval}
                      most={most}
                    />
                  </td>
                  <td className="figures whitespace-nowrap py-1.5 pr-8 text-[13px] text-soft">
                    {asCount(share.mentioned)} of {asCount(share.sampled)},{' '}
                    {asInterval(share.sampleInterval, share.sampled)}
                  </td>
                  {share.estimate ? (
                    <>
                      <td className="py-1.5 pr-2">
                        <ShareRange
                          label="estimate"
                          value={share.estimate.value}
                          interval={share.estimate.interval}
                          most={most}
                        />
                      </td>
                      <td className="figures whitespace-nowrap py-1.5 text-[13px]">
                        {asPercent(share.estimate.value, run.answers)} of {asCount(run.answers)},{' '}
                        {asInterval(share.estimate.interval, run.answers)}
                      </td>
                    </>
                  ) : (
                    <td colSpan={2} className="py-1.5 text-[13px] text-soft">
                      {state === 'too_few'
                        ? 'too few examples for a model'
                        : 'too few in the sample mention it'}
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <p className="mt-3 text-[13px] text-soft">
        95% <Term of="interval">intervals</Term>: <Term of="wilson-interval">Wilson’s</Term> for the
        sample, Wilson’s at the equally exact sample size for the estimate. These are estimates, not
        counts; as a table, by group too, they are in the{' '}
        <Link to="../report?counts=estimated" className="underline">
          report with estimates
        </Link>
        .
      </p>
    </>
  );
}

const asInterval = ([low, high]: readonly [number, number], base: number) =>
  `${asPercent(low, base)} to ${asPercent(high, base)}`;
