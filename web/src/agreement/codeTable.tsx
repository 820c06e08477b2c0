import type { Agreement, CodeAgreement } from '@yellow-thread/contract';
import { useState } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { Choice } from '../parts/field.js';
import { asCount, asPercent, counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { coefficient, type CoderNames } from './words.js';

const states: Record<CodeAgreement['state'], string> = {
  firm: 'agree well',
  tentative: 'tentative',
  low: 'agree too little',
  little_evidence: 'too rare to say',
};
const cell = 'figures py-1.5 pl-4 text-right whitespace-nowrap';

/** Agreement code by code, each with its four cells. */
export function CodeTable({
  agreement: { codes, everybody, sameSets },
  codebook,
  names: { first, second },
  chosen,
  onChoose,
}: {
  agreement: Agreement;
  codebook: DrawnCodebook;
  names: CoderNames;
  /** The code of which differing answers are shown. */
  chosen: string | null;
  onChoose: (code: string | null) => void;
}) {
  const [order, setOrder] = useState<'book' | 'least'>('least');
  const known = codes.flatMap((one) => {
    const code = codebook.byId.get(one.codeId);
    return code ? [{ ...one, code }] : [];
  });
  const shown =
    order === 'book'
      ? known
      : known.toSorted(
          (x, y) =>
            Number(x.state === 'little_evidence') - Number(y.state === 'little_evidence') ||
            (x.alpha ?? 2) - (y.alpha ?? 2),
        );
  const unused = codebook.codes.filter((one) => !one.archived).length - known.length;
  return (
    <section className="mb-8 max-w-5xl" aria-labelledby="by-code">
      <div className="flex items-baseline justify-between">
        <h2 id="by-code">Code by code</h2>
        <Choice
          label="in the order of"
          value={order}
          onChange={(event) => setOrder(event.target.value === 'book' ? 'book' : 'least')}
        >
          <option value="least">least agreement</option>
          <option value="book">the codebook</option>
        </Choice>
      </div>
      <table className="mt-2 w-full">
        <thead className="border-b border-rule text-right align-bottom text-soft [&_th]:pb-1.5 [&_th]:font-normal">
          <tr>
            <th scope="col" className="text-left">
              Code
            </th>
            <th scope="col" className="pl-4">
              both
            </th>
            <th scope="col" className="max-w-28 pl-4">
              only {first}
            </th>
            <th scope="col" className="max-w-28 pl-4">
              only {second}
            </th>
            <th scope="col" className="pl-4">
              neither
            </th>
            <th scope="col" className="pl-4">
              agreed
            </th>
            <th scope="col" className="pl-4" title="Cohen’s kappa with its 95% interval">
              kappa
            </th>
            <th scope="col" className="pl-4" title="Krippendorff’s alpha">
              alpha
            </th>
            <th
              scope="col"
              className="pl-4"
              title="Gwet’s AC1: stays readable where a code is rare"
            >
              AC1
            </th>
            {everybody && (
              <th scope="col" className="pl-4" title={`alpha of all ${everybody.coders} codings`}>
                alpha, all
              </th>
            )}
            <th scope="col" className="pl-4 text-left">
              state
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ codeId, code, cells, ...one }) => (
            <tr
              key={codeId}
              className={`border-b border-rule ${chosen === codeId ? 'bg-wash' : ''}`}
            >
              <th scope="row" className="py-1.5 text-left font-normal">
                <button
                  type="button"
                  aria-pressed={chosen === codeId}
                  title="Only the answers in which they differ on this code"
                  className="flex items-center gap-2 rounded text-left hover:underline disabled:no-underline"
                  disabled={cells.first + cells.second === 0}
                  onClick={() => onChoose(chosen === codeId ? null : codeId)}
                >
                  <StitchMark look={code.look} />
                  {code.name}
                </button>
              </th>
              <td className={cell}>{asCount(cells.both)}</td>
              <td className={cell}>{asCount(cells.first)}</td>
              <td className={cell}>{asCount(cells.second)}</td>
              <td className={cell}>{asCount(cells.neither)}</td>
              <td className={cell}>{asPercent(one.agreed, one.n)}</td>
              <td className={cell}>{coefficient(one.kappa, one.interval)}</td>
              <td className={cell}>{coefficient(one.alpha)}</td>
              <td className={cell}>{coefficient(one.ac1)}</td>
              {everybody && (
                <td className={cell}>{coefficient(everybody.codes[codeId] ?? null)}</td>
              )}
              <td className="whitespace-nowrap py-1.5 pl-4 text-[13px]">{states[one.state]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 max-w-prose text-[13px] text-soft">
        Of {asCount(sameSets.n)} answers each. Kappa and alpha fall where a code is rare even if the
        two hardly differ: look at AC1 and the counts too. “Agree well” is an alpha from .80,
        “tentative” from .667; under five uses nothing is said.
        {unused > 0 &&
          ` ${counted(unused, 'code')} that neither gave ${unused === 1 ? 'is' : 'are'} left out.`}
      </p>
    </section>
  );
}
