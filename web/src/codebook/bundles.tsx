import { useState } from 'react';
import { useChangeCodebook, type DrawnCodebook } from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { counted } from '../parts/numbers.js';

/** Bundles: codes gathered for a purpose, across themes. What is in them is chosen at each code. */
export function Bundles({ study, codebook }: { study: number; codebook: DrawnCodebook }) {
  const { mutate: change } = useChangeCodebook(study);
  const [name, setName] = useState('');
  return (
    <section aria-label="Bundles" className="mt-6">
      <h2 className="border-b border-rule pb-1">Bundles</h2>
      {codebook.bundles.length === 0 && (
        <p className="mt-1 text-[13px] text-soft">
          A bundle gathers codes from several themes for a purpose. A code may be in several.
        </p>
      )}
      <ul>
        {codebook.bundles.map((bundle) => (
          <li key={bundle.id} className="flex items-baseline gap-3 px-2 py-1">
            <span className="min-w-0 flex-1 truncate">{bundle.name}</span>
            <span className="figures text-[13px] text-soft">
              {counted(bundle.codeIds.length, 'code')} ·{' '}
              {counted(bundle.people, 'person', 'people')}
            </span>
            <button
              type="button"
              className="text-[13px] underline"
              onClick={() => change({ do: 'removeBundle', id: bundle.id })}
            >
              remove
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
          aria-label="Name of a new bundle"
          placeholder="a new bundle"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className={`${inputBox} min-w-0 flex-1`}
        />
        <Button type="submit" disabled={name.trim() === ''}>
          Add bundle
        </Button>
      </form>
    </section>
  );
}
