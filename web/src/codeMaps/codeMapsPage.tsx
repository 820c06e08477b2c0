import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCodeMaps, usePutCodeMap } from '../data/codeMaps.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { OpenMap } from './openMap.js';
import { codeMapsPageTexts as texts } from './texts.js';

/** The maps of a study, or the one that is open. */
export function CodeMapsPage() {
  const id = useParams()['map'];
  return id === undefined ? <MapList /> : <OpenMap key={id} id={id} />;
}

function MapList() {
  const study = useStudyDetail();
  const maps = useCodeMaps(study.id);
  const put = usePutCodeMap(study.id);
  const navigate = useNavigate();
  const [name, setName] = useState('');
  if (maps.isError) return <PageProblem error={maps.error} />;
  if (!maps.data) return <Waiting what={texts.theMaps} />;
  return (
    <main className="mx-auto flex w-full max-w-3xl flex-col gap-4 px-6 py-6">
      <h1>{texts.maps}</h1>
      <p className="max-w-prose text-soft">
        {texts.about}{' '}
        <Link to={`/studies/${study.id}/codebook`} className="underline">
          {texts.codebook}
        </Link>
      </p>
      <ul>
        {maps.data.maps.map((map) => (
          <li key={map.id} className="flex items-baseline gap-3 border-b border-rule py-2">
            <Link
              to={`/studies/${study.id}/maps/${map.id}`}
              className="min-w-0 flex-1 break-words font-medium hover:underline"
            >
              {map.name}
            </Link>
            <span className="figures text-[13px] text-soft">{texts.nodeCounted(map.nodes)}</span>
          </li>
        ))}
      </ul>
      <form
        className="flex max-w-md gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const id = crypto.randomUUID();
          put.mutate(
            { id, name },
            { onSuccess: () => void navigate(`/studies/${study.id}/maps/${id}`) },
          );
        }}
      >
        <input
          aria-label={texts.nameNew}
          placeholder={texts.newName}
          maxLength={120}
          value={name}
          onChange={({ target }) => setName(target.value)}
          className={`${inputBox} min-w-0 flex-1`}
        />
        <Button type="submit" look="main" disabled={name.trim() === ''}>
          {texts.add}
        </Button>
      </form>
      {put.isError && <ProblemNote error={put.error} />}
    </main>
  );
}
