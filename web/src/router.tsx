import { createBrowserRouter, Navigate, redirect } from 'react-router';
import { ledgerQueryIn } from './coding/ledgerFilter.js';
import { fetchStudyAhead } from './data/ahead.js';
import { fetchLedgerAhead } from './data/coding.js';
import { findOpeningPath } from './data/membership.js';
import { QuestionFrame } from './frame/questionFrame.js';
import { StudyFrame } from './frame/studyFrame.js';
import { ChangePassword } from './people/choosePassword.js';
import { JoinPage } from './people/joinPage.js';
import { SignedIn } from './people/signedIn.js';
import { NoPage } from './frame/noPage.js';
import { StudyList } from './study/studyList.js';
import { StudyOpened } from './study/studyOpened.js';

/** Each stop is fetched when it is first gone to. */
export const router = createBrowserRouter([
  { path: 'join', element: <JoinPage /> },
  {
    element: <SignedIn />,
    children: [
      { index: true, element: <Navigate to="/studies" replace /> },
      { path: 'studies', element: <StudyList /> },
      { path: 'password', element: <ChangePassword /> },
      {
        path: 'studies/:study',
        element: <StudyFrame />,
        loader: ({ params }) => {
          fetchStudyAhead(Number(params['study']));
          return null;
        },
        children: [
          {
            index: true,
            element: <StudyOpened />,
            // before anything of the study is shown: who clicks on meanwhile is not led back
            loader: async ({ params }) => {
              const path = await findOpeningPath(Number(params['study']));
              return path ? redirect(path) : null;
            },
          },
          {
            path: 'help/:page?',
            lazy: async () => ({ Component: (await import('./help/helpPage.js')).HelpPage }),
          },
          {
            path: 'import/:sheet?',
            lazy: async () => ({ Component: (await import('./sheet/importStop.js')).ImportStop }),
          },
          {
            path: 'respondents',
            lazy: async () => ({
              Component: (await import('./respondents/respondentsPage.js')).RespondentsPage,
            }),
          },
          {
            path: 'about',
            lazy: async () => ({ Component: (await import('./study/studyPage.js')).StudyPage }),
          },
          {
            path: 'codebook',
            lazy: async () => ({
              Component: (await import('./codebook/codebookPage.js')).CodebookPage,
            }),
          },
          {
            path: 'codebook/split/:code',
            lazy: async () => ({ Component: (await import('./codebook/sortPage.js')).SplitPage }),
          },
          {
            path: 'codebook/sort/:theme',
            lazy: async () => ({
              Component: (await import('./codebook/sortPage.js')).SortThemePage,
            }),
          },
          {
            path: 'maps/:map?',
            lazy: async () => ({
              Component: (await import('./codeMaps/codeMapsPage.js')).CodeMapsPage,
            }),
          },
          {
            path: 'groups',
            lazy: async () => ({ Component: (await import('./groups/groupsPage.js')).GroupsPage }),
          },
          {
            path: 'write-ups/:writeUp?',
            lazy: async () => ({
              Component: (await import('./writeUps/writeUpPage.js')).WriteUpPage,
            }),
          },
          {
            path: 'notes',
            lazy: async () => ({ Component: (await import('./notes/notesPage.js')).NotesPage }),
          },
          {
            path: 'team',
            lazy: async () => ({ Component: (await import('./people/teamPage.js')).TeamPage }),
          },
          {
            path: 'history',
            lazy: async () => ({
              Component: (await import('./history/historyPage.js')).HistoryPage,
            }),
          },
          {
            path: 'questions/:question',
            element: <QuestionFrame />,
            children: [
              { index: true, element: <Navigate to="code" replace /> },
              {
                path: 'look',
                lazy: async () => ({ Component: (await import('./look/lookStop.js')).LookStop }),
              },
              {
                path: 'code',
                loader: ({ params, request }) => {
                  const query = ledgerQueryIn(new URL(request.url).searchParams);
                  void fetchLedgerAhead(Number(params['study']), Number(params['question']), query);
                  return null;
                },
                // what is chosen is fetched by the page itself
                shouldRevalidate: ({ currentUrl, nextUrl }) =>
                  currentUrl.pathname !== nextUrl.pathname,
                lazy: async () => ({ Component: (await import('./coding/codeStop.js')).CodeStop }),
              },
              {
                path: 'train',
                lazy: async () => ({
                  Component: (await import('./learning/trainStop.js')).TrainStop,
                }),
              },
              {
                path: 'review/:code?',
                lazy: async () => ({
                  Component: (await import('./review/reviewStop.js')).ReviewStop,
                }),
              },
              {
                path: 'left',
                lazy: async () => ({ Component: (await import('./review/leftPage.js')).LeftPage }),
              },
              {
                path: 'tone',
                lazy: async () => ({ Component: (await import('./tone/tonePage.js')).TonePage }),
              },
              {
                path: 'second-reading/:reading?',
                lazy: async () => ({
                  Component: (await import('./agreement/secondReadings.js')).SecondReadings,
                }),
              },
              {
                path: 'report',
                lazy: async () => ({
                  Component: (await import('./report/reportStop.js')).ReportStop,
                }),
              },
              { path: '*', element: <NoPage /> },
            ],
          },
          { path: '*', element: <NoPage /> },
        ],
      },
      { path: '*', element: <NoPage /> },
    ],
  },
]);
