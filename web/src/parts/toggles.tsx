import { foldForSearch } from '@yellow-thread/core/text';
import { useState } from 'react';
import { inputBox } from './field.js';
import { togglesTexts } from './texts.js';

/** More than these are found by their letters. */
const MOST_SHOWN = 40;

/** Some of several, each chosen by itself. */
export function Toggles({
  options,
  chosen,
  onChange,
}: {
  options: readonly { key: string; name: string }[];
  chosen: readonly string[];
  onChange: (keys: string[]) => void;
}) {
  const [letters, setLetters] = useState('');
  const wanted = foldForSearch(letters);
  const isMany = options.length > MOST_SHOWN;
  const fitting = options.filter(
    ({ key, name }) => !chosen.includes(key) && foldForSearch(name).includes(wanted),
  );
  const shown = isMany
    ? [...options.filter(({ key }) => chosen.includes(key)), ...fitting.slice(0, MOST_SHOWN)]
    : options;
  return (
    <span className="flex max-w-[520px] flex-wrap gap-1">
      {isMany && (
        <input
          aria-label={togglesTexts.findValue}
          placeholder={togglesTexts.findAmong(options.length)}
          className={`${inputBox} w-40 !py-1`}
          value={letters}
          onChange={(event) => setLetters(event.target.value)}
        />
      )}
      {shown.map(({ key, name }) => {
        const isChosen = chosen.includes(key);
        return (
          <button
            key={key}
            type="button"
            aria-pressed={isChosen}
            onClick={() =>
              onChange(isChosen ? chosen.filter((one) => one !== key) : [...chosen, key])
            }
            className={`rounded border px-2 py-1 ${isChosen ? 'border-ink bg-wash' : 'border-rule text-soft hover:border-soft'}`}
          >
            {name}
          </button>
        );
      })}
      {isMany && fitting.length > MOST_SHOWN && (
        <span className="self-center text-soft">
          {togglesTexts.more(fitting.length, MOST_SHOWN)}
        </span>
      )}
    </span>
  );
}
