import type { VariableDetail } from '@yellow-thread/contract';
import { bandsFrom, parseLimits } from '@yellow-thread/core/groups';
import { useState } from 'react';
import { useAddBands } from '../data/respondents.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';

/** Makes a new variable of bands of a number or a date. */
export function BandMaker({ study, variable }: { study: number; variable: VariableDetail }) {
  const add = useAddBands(study, variable.id);
  const isDate = variable.kind === 'date';
  const [name, setName] = useState(`${variable.name}, banded`.slice(0, 120));
  const [limits, setLimits] = useState('');
  const [labels, setLabels] = useState<Record<string, string>>({});
  const bands = bandsFrom(parseLimits(limits, isDate)).map((band) => ({
    ...band,
    label: labels[String(band.from)] ?? band.label,
  }));
  return (
    <form
      className="flex flex-col gap-3 border-t border-rule pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate({ name, bands });
      }}
    >
      <h3 className="font-semibold">Make bands of it</h3>
      <Field
        label="Bands begin at"
        placeholder={isDate ? '2026-04-01, 2026-07-01' : '0, 7, 9'}
        hint={
          isDate
            ? 'Days separated by commas, written year first; everything before the first is a band too.'
            : 'Numbers separated by commas: 0, 7, 9 makes 0–6, 7–8 and 9 and over.'
        }
        value={limits}
        onChange={(event) => setLimits(event.target.value)}
      />
      {bands.length > 0 && (
        <>
          <ul className="flex flex-col gap-1">
            {bands.map((band) => (
              <li key={String(band.from)} className="flex items-center gap-3">
                <span className="figures w-28 shrink-0 text-soft">
                  {band.from === null ? 'before' : `from ${band.from}`}
                </span>
                <input
                  aria-label={`Name of the band from ${band.from ?? 'the beginning'}`}
                  maxLength={120}
                  required
                  value={band.label}
                  onChange={(event) =>
                    setLabels({ ...labels, [String(band.from)]: event.target.value })
                  }
                  className="min-w-0 flex-1 rounded border border-rule bg-card px-2 py-1"
                />
              </li>
            ))}
          </ul>
          <Field
            label="Name of the new variable"
            required
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" look="main" className="self-start" disabled={add.isPending}>
            Make the variable
          </Button>
        </>
      )}
      {add.error && <ProblemNote error={add.error} />}
      {add.isSuccess && (
        <p role="status">“{name}” is made: reports can be by it, and it follows later values.</p>
      )}
    </form>
  );
}
