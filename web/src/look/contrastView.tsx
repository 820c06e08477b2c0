import type { Contrast, TermContrast } from '@yellow-thread/contract';
import { useContrast } from '../data/look.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Term } from '../help/term.js';
import { asCount, asNumber, asP, asPercent } from '../lib/numbers.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { useCompared, type Compared } from './compared.js';
import { ComparedChoice } from './comparedChoice.js';
import { contrastViewTexts } from './texts.js';
import { useHitsOf } from './useHitsOf.js';

/** What some people say more and less often than everybody else. */
export function ContrastView() {
  const { study, question } = useStudyLocation();
  const compared = useCompared(study);
  const contrast = useContrast(study.id, question.id, compared?.rule ?? null);
  return (
    <div className="flex flex-col gap-6 px-6 py-5 max-sm:px-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <ComparedChoice study={study} />
        <span className="text-soft">{contrastViewTexts.with}</span>
      </div>
      {!compared ? (
        <EmptyState title={contrastViewTexts.pickWho}>
          <p>{contrastViewTexts.pickWhoWhy}</p>
        </EmptyState>
      ) : contrast.isError ? (
        <PageProblem error={contrast.error} />
      ) : !contrast.data ? (
        <Waiting what={contrastViewTexts.comparison} />
      ) : (
        <Compared contrast={contrast.data} compared={compared} />
      )}
    </div>
  );
}

function Compared({ contrast, compared }: { contrast: Contrast; compared: Compared }) {
  if (contrast.group === 0 || contrast.rest === 0)
    return (
      <EmptyState title={contrastViewTexts.tooFew}>
        <p>{contrastViewTexts.tooFewWhy}</p>
      </EmptyState>
    );
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(min(100%,460px),1fr))] gap-x-10 gap-y-6">
        <Terms
          title={contrastViewTexts.more(compared.name)}
          terms={contrast.more}
          contrast={contrast}
          compared={compared}
        />
        <Terms
          title={contrastViewTexts.less(compared.name)}
          terms={contrast.less}
          contrast={contrast}
          compared={compared}
        />
      </div>
      <p className="max-w-prose text-[13px] text-soft">
        {contrastViewTexts.about(contrast.compared)} {contrastViewTexts.people}
      </p>
    </>
  );
}

function Terms({
  title,
  terms,
  contrast,
  compared,
}: {
  title: string;
  terms: readonly TermContrast[];
  contrast: Contrast;
  compared: Compared;
}) {
  const openHits = useHitsOf();
  const most = Math.max(
    ...terms.map(({ group, rest }) => Math.max(group / contrast.group, rest / contrast.rest)),
    0,
  );
  return (
    <section aria-label={title} className="min-w-0">
      <h2>{title}</h2>
      {terms.length === 0 ? (
        <p className="mt-3 text-soft">{contrastViewTexts.nothing}</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="mt-2 w-full">
            <thead className="text-left align-bottom text-[13px] text-soft">
              <tr>
                <th className="py-1 font-normal">{contrastViewTexts.word}</th>
                <th className="py-1 pl-3 text-right font-normal">
                  {contrastViewTexts.share(contrast.group)}
                </th>
                <th className="py-1 pl-3 text-right font-normal">
                  {contrastViewTexts.rest(contrast.rest)}
                </th>
                <th className="py-1 pl-3 text-right font-normal">
                  <Term of="log-ratio">{contrastViewTexts.ratio}</Term>
                </th>
                <th className="py-1 pl-3 text-right font-normal">
                  <Term of="log-likelihood">{contrastViewTexts.likelihood}</Term>
                </th>
                <th className="py-1 pl-3 text-right font-normal">{contrastViewTexts.p}</th>
              </tr>
            </thead>
            <tbody>
              {terms.map((one) => (
                <tr key={one.term} className="border-t border-rule">
                  <td className="py-1">
                    <button
                      type="button"
                      className="min-h-6 min-w-6 break-words text-left font-serif text-[16px] hover:underline"
                      onClick={() =>
                        openHits({
                          title: contrastViewTexts.theseSay(compared.name, one.term),
                          words: one.term,
                          match: 'stem',
                          ...compared.address,
                        })
                      }
                    >
                      {one.term}
                    </button>
                  </td>
                  <Share count={one.group} of={contrast.group} most={most} />
                  <Share count={one.rest} of={contrast.rest} most={most} />
                  <td className="figures py-1 pl-3 text-right">
                    {asNumber(Math.round(one.logRatio * 10) / 10)}
                  </td>
                  <td className="figures py-1 pl-3 text-right">
                    {asCount(Math.round(one.likelihood))}
                  </td>
                  <td className="figures py-1 pl-3 text-right">{asP(one.p)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

const BAR = 40;

function Share({ count, of, most }: { count: number; of: number; most: number }) {
  return (
    <td className="figures whitespace-nowrap py-1 pl-3 text-right">
      <span className="inline-flex items-center gap-2">
        <span
          aria-hidden
          className="block h-2 bg-rule"
          style={{ width: (BAR * count) / of / Math.max(most, 1e-9) }}
        />
        {asCount(count)} <span className="text-soft">{asPercent(count / of, of)}</span>
      </span>
    </td>
  );
}
