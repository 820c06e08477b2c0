import type { SheetSettings } from '@yellow-thread/contract';
import { Field } from '../parts/field.js';
import { rowsAreTexts } from './texts.js';

const kinds: { as: SheetSettings['as']; name: string; what: string }[] = [
  {
    as: 'respondents',
    name: rowsAreTexts.newRespondents,
    what: rowsAreTexts.rowsWhoseIdStudy,
  },
  {
    as: 'details',
    name: rowsAreTexts.moreAboutRespondentsWho,
    what: rowsAreTexts.backgroundAddedRespondentsSame,
  },
  {
    as: 'answers',
    name: rowsAreTexts.answersNewQuestionRespondents,
    what: rowsAreTexts.answersBackgroundIfSome,
  },
  {
    as: 'corrections',
    name: rowsAreTexts.correctedVersion,
    what: rowsAreTexts.respondentsSameIdGet,
  },
];

/** What the rows of a later sheet are. */
export function RowsAre({
  settings,
  change,
}: {
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  return (
    <div className="mt-4 flex items-start justify-between gap-6 rounded border border-rule bg-card px-4 py-3">
      <fieldset className="flex flex-col gap-1.5">
        <legend className="float-left mb-1 w-full font-medium">{rowsAreTexts.rows}</legend>
        {kinds.map(({ as, name, what }) => (
          <label key={as} className="flex max-w-prose items-start gap-2">
            <input
              type="radio"
              name="rows-are"
              className="mt-1 accent-ink"
              checked={settings.as === as}
              onChange={() => change({ as, matches: [] })}
            />
            <span>
              {name}
              {settings.as === as && <span className="block text-[13px] text-soft">{what}</span>}
            </span>
          </label>
        ))}
      </fieldset>
      {settings.as === 'respondents' && (
        <Field
          label={rowsAreTexts.wave}
          hint={rowsAreTexts.tellsRespondentsApartMay}
          maxLength={120}
          className="w-56"
          defaultValue={settings.wave}
          onBlur={(event) => change({ wave: event.target.value.trim() })}
        />
      )}
    </div>
  );
}
