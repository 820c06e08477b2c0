import type { Agreement, CodeAgreement } from '@yellow-thread/contract';
import type { CoderNames } from '@yellow-thread/core/agreement';
import { useState } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { Choice } from '../parts/field.js';
import { asCount, asPercent } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import type { Look } from '../lib/stitches.js';
import { Wide } from '../parts/wide.js';
import { Term } from '../help/term.js';
import { coefficient } from './words.js';
import { codeTableTexts } from './texts.js';

const states: Record<CodeAgreement['state'], string> = {
  firm: codeTableTexts.agreeWell,
  tentative: 'tentative',
  low: codeTableTexts.agreeTooLittle,
  little_evidence: codeTableTexts.tooRareSay,
};
const cell = 'figures py-1.5 pl-4 text-right whitespace-nowrap';

/** A row of the table that was chosen, and the codes of which differing answers are shown. */
export interface ChosenRow {
  id: string;
  codeIds: readonly string[];
}

interface Row extends CodeAgreement {
  id: string;
  name: string;
  look: Look;
  codeIds: readonly string[];
}

/** The codes or the themes that were used, as they are drawn. */
function rowsOf({ codes, themes }: Agreement, by: 'code' | 'theme', book: DrawnCodebook): Row[] {
  if (by === 'code')
    return codes.flatMap(({ codeId, ...one }) => {
      const code = book.byId.get(codeId);
      return code
        ? [{ ...one, id: codeId, name: code.name, look: code.look, codeIds: [codeId] }]
        : [];
    });
  return themes.flatMap(({ themeId, ...one }) => {
    const theme = book.themes.find(({ id }) => id === themeId);
    const codeIds = book.codes.filter((code) => code.themeId === themeId).map(({ id }) => id);
    return theme ? [{ ...one, id: themeId, name: theme.name, look: theme.look, codeIds }] : [];
  });
}

/** The least agreement first; what there is little evidence of stands last. */
const byAgreement = (x: Row, y: Row) =>
  Number(x.state === 'little_evidence') - Number(y.state === 'little_evidence') ||
  (x.alpha ?? 2) - (y.alpha ?? 2);

/** Agreement code by code, or theme by theme, each with its four cells. */
export function CodeTable({
  agreement,
  codebook,
  names: { first, second },
  chosen,
  onChoose,
}: {
  agreement: Agreement;
  codebook: DrawnCodebook;
  names: CoderNames;
  chosen: ChosenRow | null;
  onChoose: (row: ChosenRow | null) => void;
}) {
  const { sameSets, themes } = agreement;
  const [order, setOrder] = useState<'book' | 'least'>('least');
  const [by, setBy] = useState<'code' | 'theme'>('code');
  // of everybody agreement is computed by code
  const everybody = by === 'code' ? agreement.everybody : null;
  const known = rowsOf(agreement, by, codebook);
  const shown = order === 'book' ? known : known.toSorted(byAgreement);
  const all = by === 'code' ? codebook.codes.filter((one) => !one.archived) : codebook.themes;
  const unused = all.length - known.length;
  return (
    <section className="mb-8 max-w-5xl" aria-labelledby="by-code">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h2 id="by-code">{by === 'code' ? codeTableTexts.codeCode : codeTableTexts.themeTheme}</h2>
        <span className="flex min-w-0 flex-wrap items-baseline gap-x-4 gap-y-2">
          {themes.length > 0 && (
            <Choice
              label={codeTableTexts.rows}
              value={by}
              onChange={(event) => setBy(event.target.value === 'theme' ? 'theme' : 'code')}
            >
              <option value="code">{codeTableTexts.codes}</option>
              <option value="theme">{codeTableTexts.themesAnyCodeTheirs}</option>
            </Choice>
          )}
          <Choice
            label={codeTableTexts.order}
            value={order}
            onChange={(event) => setOrder(event.target.value === 'book' ? 'book' : 'least')}
          >
            <option value="least">{codeTableTexts.leastAgreement}</option>
            <option value="book">{codeTableTexts.codebook}</option>
          </Choice>
        </span>
      </div>
      <Wide label={codeTableTexts.agreement}>
        <table className="mt-2 w-full">
          <thead className="border-b border-rule text-right align-bottom text-soft [&_th]:pb-1.5 [&_th]:font-normal">
            <tr>
              <th scope="col" className="text-left">
                {by === 'code' ? codeTableTexts.code : codeTableTexts.theme}
              </th>
              <th scope="col" className="pl-4">
                {codeTableTexts.both}
              </th>
              <th scope="col" className="max-w-28 pl-4">
                {codeTableTexts.only(first)}
              </th>
              <th scope="col" className="max-w-28 pl-4">
                {codeTableTexts.only2(second)}
              </th>
              <th scope="col" className="pl-4">
                {codeTableTexts.neither}
              </th>
              <th scope="col" className="pl-4">
                <Term of="percent-agreement">{codeTableTexts.agreed}</Term>
              </th>
              <th scope="col" className="pl-4" title={codeTableTexts.cohensKappa95Interval}>
                <Term of="kappa">{codeTableTexts.kappa}</Term>
              </th>
              <th scope="col" className="pl-4" title={codeTableTexts.krippendorffsAlpha}>
                <Term of="alpha">{codeTableTexts.alpha}</Term>
              </th>
              <th scope="col" className="pl-4" title={codeTableTexts.gwetsAc1StaysReadable}>
                <Term of="ac1">{codeTableTexts.ac1}</Term>
              </th>
              {everybody && (
                <th
                  scope="col"
                  className="pl-4"
                  title={codeTableTexts.alphaAllCodings(everybody.coders)}
                >
                  {codeTableTexts.alphaAll}
                </th>
              )}
              <th scope="col" className="pl-4 text-left">
                {codeTableTexts.state}
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ id, name, look, codeIds, cells, ...one }) => (
              <tr key={id} className={`border-b border-rule ${chosen?.id === id ? 'bg-wash' : ''}`}>
                <th scope="row" className="py-1.5 text-left font-normal">
                  <button
                    type="button"
                    aria-pressed={chosen?.id === id}
                    title={codeTableTexts.onlyAnswersWhichDiffer}
                    className="flex items-center gap-2 rounded text-left hover:underline disabled:no-underline"
                    disabled={cells.first + cells.second === 0}
                    onClick={() => onChoose(chosen?.id === id ? null : { id, codeIds })}
                  >
                    <StitchMark look={look} />
                    {name}
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
                {everybody && <td className={cell}>{coefficient(everybody.codes[id] ?? null)}</td>}
                <td className="whitespace-nowrap py-1.5 pl-4 text-[13px]">{states[one.state]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="mt-2 max-w-prose text-[13px] text-soft">
        {codeTableTexts.answersEachKappaAlpha(sameSets.n)}
        {unused > 0 && codeTableTexts.neitherGaveListed(unused, by)}
      </p>
    </section>
  );
}
