import { Download } from 'lucide-react';
import { useState } from 'react';
import { personalDataAddress, useDeleteRespondent } from '../data/personalData.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { personalDataTexts as texts } from './texts.js';

/** What is kept of one respondent, as a file; and their deletion, from everywhere and for good. */
export function PersonalDataDrawer({ study }: { study: number }) {
  const [externalId, setExternalId] = useState('');
  const [asks, setAsks] = useState(false);
  const remove = useDeleteRespondent(study);
  const typed = externalId.trim();
  return (
    <div className="flex flex-col items-start gap-5">
      <p>{texts.whoAsks}</p>
      <Field
        label={texts.idOfRespondent}
        hint={texts.asInSheet}
        className="w-full"
        maxLength={1000}
        value={externalId}
        onChange={(event) => {
          setExternalId(event.target.value);
          setAsks(false);
          remove.reset();
        }}
      />
      <section className="flex flex-col items-start gap-2" aria-labelledby="what-is-kept">
        <h2 id="what-is-kept">{texts.whatIsKept}</h2>
        <p className="text-soft">{texts.whatFileHolds}</p>
        {typed === '' ? (
          <Button disabled>
            <Download size={15} aria-hidden /> {texts.download}
          </Button>
        ) : (
          <a
            href={personalDataAddress(study, typed)}
            download
            className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-3 py-1.5 font-medium hover:border-soft"
          >
            <Download size={15} aria-hidden /> {texts.download}
          </a>
        )}
      </section>
      <section className="flex flex-col items-start gap-2" aria-labelledby="delete-for-good">
        <h2 id="delete-for-good">{texts.deleteForGood}</h2>
        <p className="text-soft">{texts.whatGoes}</p>
        {asks ? (
          <div className="flex flex-wrap items-center gap-2">
            <span>{texts.sure(typed)}</span>
            <Button
              look="grave"
              disabled={remove.isPending}
              onClick={() =>
                remove.mutate(typed, {
                  onSuccess: () => {
                    setAsks(false);
                    setExternalId('');
                  },
                })
              }
            >
              {texts.deleteForGood}
            </Button>
            <Button onClick={() => setAsks(false)}>{texts.cancel}</Button>
          </div>
        ) : (
          <Button look="grave" disabled={typed === ''} onClick={() => setAsks(true)}>
            {texts.deleteAsk}
          </Button>
        )}
        {remove.error && <ProblemNote error={remove.error} />}
        {remove.data && (
          <p role="status">
            {texts.deleted(remove.data.answers, remove.data.changes, remove.data.writeUps)}
          </p>
        )}
      </section>
    </div>
  );
}
