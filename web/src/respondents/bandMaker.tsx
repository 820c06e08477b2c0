import type { VariableDetail } from '@yellow-thread/contract';
import { bandsFrom, parseLimits } from '@yellow-thread/core/groups';
import { useState } from 'react';
import { useAddBands } from '../data/respondents.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { bandMakerTexts } from './texts.js';

/** Makes a new variable of bands of a number or a date. */
export function BandMaker({ study, variable }: { study: number; variable: VariableDetail }) {
  const add = useAddBands(study, variable.id);
  const isDate = variable.kind === 'date';
  const [name, setName] = useState(bandMakerTexts.banded(variable.name).slice(0, 120));
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
      <h3 className="font-semibold">{bandMakerTexts.makeBands}</h3>
      <Field
        label={bandMakerTexts.bandsBegin}
        placeholder={isDate ? '2026-04-01, 2026-07-01' : '0, 7, 9'}
        hint={
          isDate
            ? bandMakerTexts.daysSeparatedCommasWritten
            : bandMakerTexts.numbersSeparatedCommas0
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
                  {band.from === null ? bandMakerTexts.before : bandMakerTexts.from(band.from)}
                </span>
                <input
                  aria-label={bandMakerTexts.nameBand(band.from)}
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
            label={bandMakerTexts.nameNewVariable}
            required
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" look="main" className="self-start" disabled={add.isPending}>
            {bandMakerTexts.makeVariable}
          </Button>
        </>
      )}
      {add.error && <ProblemNote error={add.error} />}
      {add.isSuccess && <p role="status">{bandMakerTexts.madeReportsCanFollows(name)}</p>}
    </form>
  );
}
