import type { ReviewList } from '@yellow-thread/contract';
import type { DrawnCodebook } from '../data/codebook.js';
import { useReviews } from '../data/review.js';
import { asCount } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { progressTexts } from './texts.js';

/** What was decided of each code's suggestions, and by whom; it follows what is decided beside it. */
export function Progress({
  study,
  question,
  codebook,
}: {
  study: number;
  question: number;
  codebook: DrawnCodebook;
}) {
  const codes = useReviews(study, question).data?.codes ?? [];
  return (
    <table className="figures w-full">
      <thead className="text-left text-[13px] text-soft">
        <tr>
          <th className="pb-1 font-normal">{progressTexts.code}</th>
          <th className="pb-1 text-right font-normal">{progressTexts.open}</th>
          <th className="pb-1 text-right font-normal">{progressTexts.accepted}</th>
          <th className="pb-1 text-right font-normal">{progressTexts.refused}</th>
        </tr>
      </thead>
      {codes.map(({ codeId, open, accepted, refused, deciders }) => {
        const code = codebook.byId.get(codeId);
        return (
          code && (
            <tbody key={codeId} className="border-t border-rule align-top">
              <tr>
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  <span className="mr-2 inline-block">
                    <StitchMark look={code.look} width={18} />
                  </span>
                  {code.name}
                </th>
                {[open, accepted, refused].map((count, c) => (
                  <td key={c} className="py-1.5 text-right">
                    {asCount(count)}
                  </td>
                ))}
              </tr>
              {deciders.length > 0 && (
                <tr>
                  <td colSpan={4} className="pb-1.5 pl-7 text-[13px] text-soft">
                    {deciders.map(sayDecider).join('; ')}
                  </td>
                </tr>
              )}
            </tbody>
          )
        );
      })}
    </table>
  );
}

function sayDecider({ name, read, bulk }: ReviewList['codes'][number]['deciders'][number]) {
  const parts = [
    read > 0 && progressTexts.oneOne(read),
    bulk > 0 && progressTexts.bulk(bulk),
  ].filter(Boolean);
  return `${name}: ${parts.join(', ')}`;
}
