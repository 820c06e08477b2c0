import { Outlet, useLocation, useMatch } from 'react-router';
import { useStudyEvents } from '../data/events.js';
import { useSendLeft } from '../data/outbox.js';
import { useStudy } from '../data/studies.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { Drawer, DrawerProvider } from './drawer.js';
import { KeysProvider, ShowKeys } from './keys.js';
import { Palette } from './palette.js';
import { STOPS, useStudyId } from './place.js';
import { ThreadRail } from './threadRail.js';
import { UndoKeys } from './undoKeys.js';
import { WithinBar } from './withinBar.js';

const aside: Record<string, string> = {
  respondents: 'Respondents',
  about: 'Study',
  notes: 'Notes',
  history: 'History',
  groups: 'Groups',
  'write-ups': 'Write-ups',
  people: 'People',
};

/** The frame around every page of a study: the thread at the left, the page, the drawer. */
export function StudyFrame() {
  const id = useStudyId();
  const study = useStudy(id);
  useStudyEvents(id);
  useSendLeft();
  const { pathname } = useLocation();
  const match = useMatch('/studies/:study/questions/:question/*');
  if (study.isError) return <PageProblem error={study.error} />;
  if (!study.data) return <Waiting what="the study" />;
  const asked = Number(match?.params.question);
  const question =
    study.data.questions.find((one) => one.id === asked) ?? study.data.questions[0] ?? null;
  const stop =
    STOPS.find(({ key }) => pathname.split('/').includes(key))?.name ??
    (pathname.includes('/second-reading') ? 'Second readings' : undefined) ??
    aside[pathname.split('/')[3] ?? ''] ??
    'Codebook';
  return (
    <DrawerProvider>
      <title>{`${stop} – ${study.data.name} – Yellow Thread`}</title>
      <KeysProvider>
        <div className="grid h-full grid-cols-[144px_minmax(0,1fr)]">
          <ThreadRail study={study.data} question={question} />
          <div className="flex min-h-0 min-w-0 flex-col">
            <WithinBar study={study.data} />
            <Outlet context={study.data} />
          </div>
        </div>
        <Drawer />
        <Palette study={study.data} question={question} />
        <ShowKeys />
        <UndoKeys study={id} />
      </KeysProvider>
    </DrawerProvider>
  );
}
