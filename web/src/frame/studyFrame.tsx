import { hasAccess } from '@yellow-thread/contract';
import { Outlet, useLocation, useMatch } from 'react-router';
import { useStudyEvents } from '../data/events.js';
import { useSendLeft } from '../data/outbox.js';
import { useStudy } from '../data/studies.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { accessOfPage, pathInStudy } from './access.js';
import { Drawer, DrawerProvider } from './drawer.js';
import { FrameKeys } from './frameKeys.js';
import { KeysProvider } from './keys.js';
import { NotForRole } from './notForRole.js';
import { NextStepBar } from './nextStepBar.js';
import { STOPS, stopIn, useStudyId } from './studyLocation.js';
import { asidePages, studyFrameTexts } from './texts.js';
import { ThreadRail } from './threadRail.js';
import { useRememberLocation } from './useRememberLocation.js';
import { WithinBar } from './withinBar.js';

/** The frame around every page of a study: the thread at the left, the page, the drawer. */
export function StudyFrame() {
  const id = useStudyId();
  const study = useStudy(id);
  useStudyEvents(id);
  useSendLeft();
  useRememberLocation(id);
  const { pathname } = useLocation();
  const match = useMatch('/studies/:study/questions/:question/*');
  if (study.isError) return <PageProblem error={study.error} />;
  if (!study.data) return <Waiting what={studyFrameTexts.study} />;
  const asked = Number(match?.params.question);
  const question =
    study.data.questions.find((one) => one.id === asked) ?? study.data.questions[0] ?? null;
  const isAllowed = hasAccess(study.data.role, accessOfPage(pathInStudy(pathname)));
  const at = stopIn(pathname);
  const stop =
    STOPS.find(({ key }) => key === at)?.name ??
    (pathname.includes('/second-reading') ? studyFrameTexts.secondReadings : undefined) ??
    asidePages[pathname.split('/')[3] ?? ''] ??
    studyFrameTexts.codebook;
  return (
    <DrawerProvider>
      <title>{studyFrameTexts.yellowThread(stop, study.data.name)}</title>
      <KeysProvider>
        <div className="frame">
          <ThreadRail study={study.data} question={question} />
          <div className="frame-page">
            <WithinBar study={study.data} />
            <NextStepBar study={study.data} question={question} />
            {isAllowed ? <Outlet context={study.data} /> : <NotForRole study={study.data} />}
          </div>
        </div>
        <Drawer />
        <FrameKeys study={study.data} question={question} />
      </KeysProvider>
    </DrawerProvider>
  );
}
