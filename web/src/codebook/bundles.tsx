import { useState } from 'react';
import { useChangeCodebook, type DrawnCodebook } from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { bundlesTexts } from './texts.js';

/** Bundles: codes gathered for a purpose, across themes. What is in them is chosen at each code. */
export function Bundles({ study, codebook }: { study: number; codebook: DrawnCodebook }) {
  const { mutate: change } = useChangeCodebook(study);
  const [name, setName] = useState('');
  return (
    <section aria-label={bundlesTexts.bundles} className="mt-6">
      <h2 className="border-b border-rule pb-1">{bundlesTexts.bundles}</h2>
      {codebook.bundles.length === 0 && (
        <p className="mt-1 text-[13px] text-soft">{bundlesTexts.bundleGathersCodesSeveral}</p>
      )}
      <ul>
        {codebook.bundles.map((bundle) => (
          <li key={bundle.id} className="flex items-baseline gap-3 px-2 py-1">
            <span className="min-w-0 flex-1 truncate">{bundle.name}</span>
            <span className="figures text-[13px] text-soft">
              {bundlesTexts.codeCounted(bundle.codeIds.length)} ·{' '}
              {bundlesTexts.peopleCounted(bundle.people)}
            </span>
            <button
              type="button"
              className="text-[13px] underline"
              onClick={() => change({ do: 'removeBundle', id: bundle.id })}
            >
              {bundlesTexts.remove}
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const bundle = { id: crypto.randomUUID(), name, codeIds: [] };
          change({ do: 'putBundle', bundle }, { onSuccess: () => setName('') });
        }}
      >
        <input
          aria-label={bundlesTexts.nameNewBundle}
          placeholder={bundlesTexts.newBundle}
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className={`${inputBox} min-w-0 flex-1`}
        />
        <Button type="submit" disabled={name.trim() === ''}>
          {bundlesTexts.addBundle}
        </Button>
      </form>
    </section>
  );
}
