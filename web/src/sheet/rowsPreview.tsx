import type { SheetCheck } from '@yellow-thread/contract';
import { valueName } from '@yellow-thread/core/groups';
import { rowsPreviewTexts } from './texts.js';

const said = (value: string | number | boolean | null) =>
  valueName({ bands: null, labels: {} }, value) ?? '–';

/** Rows as they will be stored: the first ones and some at random. */
export function RowsPreview({ check }: { check: SheetCheck }) {
  if (check.preview.length === 0) return null;
  return (
    <section aria-labelledby="rows-preview">
      <h2 id="rows-preview">{rowsPreviewTexts.rowsWillStored}</h2>
      <p className="text-soft">{rowsPreviewTexts.firstOnesSomeRandom}</p>
      <ul>
        {check.preview.map((one) => (
          <li key={one.row} className="mt-3 border-t border-rule pt-2">
            <p className="figures">
              <span className="font-medium">{one.externalId}</span>
              <span className="text-soft"> {rowsPreviewTexts.row(one.row)}</span>
            </p>
            <p className="text-[13px] text-soft">
              {one.background
                .map((value, v) => `${check.variables[v]!.name}: ${said(value)}`)
                .join(' · ')}
            </p>
            {one.responses.map((response, q) => (
              <p key={q} className="mt-1">
                <span className="block text-[13px] text-soft">{check.questions[q]!.wording}</span>
                {response === null ? (
                  <span className="text-soft">{rowsPreviewTexts.asked}</span>
                ) : response.noAnswer ? (
                  <span className="text-soft">{rowsPreviewTexts.noAnswer(response.text)}</span>
                ) : (
                  <span className="font-serif text-[16px] whitespace-pre-line [overflow-wrap:anywhere]">
                    {response.text}
                  </span>
                )}
                {response && response.codes.length > 0 && (
                  <span className="block text-[13px]">
                    {rowsPreviewTexts.codes(response.codes.join(', '))}
                  </span>
                )}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
