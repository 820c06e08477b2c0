import type { Training } from '@yellow-thread/contract';
import { useReinstate } from '../data/learning.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount, asDate } from '../lib/numbers.js';
import { Wide } from '../parts/wide.js';
import { runsTexts } from './texts.js';

/** Every training of the question, with what it learnt from; an earlier one can be used again. */
export function Runs({ runs }: Pick<Training, 'runs'>) {
  const { study, question } = useStudyLocation();
  const reinstate = useReinstate(study.id, question.id);
  return (
    <>
      <Wide label={runsTexts.trainingRuns}>
        <table>
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              <th className="py-1.5 pr-6 font-normal">{runsTexts.run}</th>
              <th className="py-1.5 pr-6 text-right font-normal">{runsTexts.settled}</th>
              <th className="py-1.5 pr-6 text-right font-normal">{runsTexts.answers}</th>
              <th className="py-1.5 pr-6 font-normal">{runsTexts.excluded}</th>
              <th className="py-1.5 pr-6 font-normal">
                <span title={runsTexts.runsSameDataWords}>{runsTexts.data}</span>
              </th>
              <th className="py-1.5 pr-6 text-right font-normal">{runsTexts.seconds}</th>
              <th className="py-1.5 font-normal">{runsTexts.state}</th>
            </tr>
          </thead>
          <tbody>
            {runs.map((run) => (
              <tr key={run.id} className="border-b border-rule">
                <th scope="row" className="py-1.5 pr-6 text-left font-normal">
                  <span className="figures">{run.id}</span>{' '}
                  <span className="text-soft">{asDate(run.finishedAt)}</span>
                </th>
                <td className="figures py-1.5 pr-6 text-right">
                  {asCount(run.settled)}
                  {run.learntFromBulk && runsTexts.bulk}
                </td>
                <td className="figures py-1.5 pr-6 text-right">{asCount(run.answers)}</td>
                <td className="max-w-60 truncate py-1.5 pr-6 font-serif">
                  {run.excluded.map((one) => one.word).join(', ') || '–'}
                </td>
                <td className="figures py-1.5 pr-6 text-[13px] text-soft">
                  {run.fingerprint || runsTexts.kept}
                </td>
                <td className="figures py-1.5 pr-6 text-right">{run.seconds.toFixed(1)}</td>
                <td className="py-1.5">
                  {run.inForce ? (
                    runsTexts.use
                  ) : run.isKept ? (
                    <Button
                      className="py-0.5"
                      disabled={reinstate.isPending}
                      onClick={() => reinstate.mutate(run.id)}
                    >
                      {runsTexts.useAgain}
                    </Button>
                  ) : (
                    <span className="text-soft">{runsTexts.suggestionsNoLongerKept}</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {reinstate.error && <ProblemNote error={reinstate.error} />}
      <p className="mt-3 max-w-3xl text-[13px] text-soft">{runsTexts.usingRunAgainPuts}</p>
    </>
  );
}
