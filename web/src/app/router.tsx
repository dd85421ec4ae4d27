import { Suspense, type ReactNode } from 'react';
import { createBrowserRouter, Navigate, Outlet } from 'react-router';
import { JointsPage } from '../views/joints/JointsPage.tsx';
import { kindsKnown } from '../state/kinds.ts';
import { NotFound, Oops } from './Oops.tsx';
import { Coming, view } from './view.tsx';

const wait = (node: ReactNode) => <Suspense fallback={<Coming />}>{node}</Suspense>;
// The shelf of joints is the first page; what a joint needs follows when one is opened.
const JointFrame = view(() =>
  Promise.all([import('./JointFrame.tsx'), kindsKnown()]).then(([m]) => ({ default: m.JointFrame })),
);
const BriefView = view(() => import('../views/brief/BriefView.tsx'));
const LineFrame = view(() => import('../views/line/LineFrame.tsx'));
const LineView = view(() => import('../views/line/LineView.tsx'));
const MotorView = view(() => import('../views/line/MotorView.tsx'));
const FindView = view(() => import('../views/line/FindView.tsx'));
const DeskView = view(() => import('../views/line/DeskView.tsx'));
const SharesView = view(() => import('../views/line/SharesView.tsx'));
const WhatIfView = view(() => import('../views/line/WhatIfView.tsx'));
const CompareView = view(() => import('../views/line/CompareView.tsx'));
const StageView = view(() => import('../views/stage/StageView.tsx'));
const MakeFrame = view(() => import('../views/make/MakeFrame.tsx'));
const FitView = view(() => import('../views/make/fit/FitView.tsx'));
const ScheduleView = view(() => import('../views/make/schedule/ScheduleView.tsx'));
const TogetherView = view(() => import('../views/make/together/TogetherView.tsx'));
const LineSpaceView = view(() => import('../views/make/space/LineSpaceView.tsx'));
const SectionView = view(() => import('../views/make/section/SectionView.tsx'));
const MakeView = view(() => import('../views/make/MakeView.tsx'));
const BenchView = view(() => import('../views/bench/BenchView.tsx'));
const ReviewView = view(() => import('../views/review/ReviewView.tsx'));
const HelpFrame = view(() => import('../views/help/HelpFrame.tsx'));
const HelpPage = view(() => import('../views/help/HelpPage.tsx'));
const WordsPage = view(() => import('../views/help/WordsPage.tsx'));
const MethodPage = view(() => import('../views/help/MethodPage.tsx'));
const KeysPage = view(() => import('../views/help/KeysPage.tsx'));
const AboutPage = view(() => import('../views/help/AboutPage.tsx'));
const ShopPage = view(() => import('../views/shop/ShopPage.tsx'));

/** Pages by address; every view of a joint has one, so that it can be marked and gone back to. */
export const router = createBrowserRouter([
  {
    element: <Outlet />,
    errorElement: (
      <main>
        <Oops />
      </main>
    ),
    children: [
      { path: '/', element: <JointsPage /> },
      { path: '/shop', element: wait(<ShopPage />) },
      {
        element: wait(<HelpFrame />),
        children: [
          { path: '/words', element: wait(<WordsPage />) },
          { path: '/help', element: wait(<HelpPage />) },
          { path: '/help/method', element: wait(<MethodPage />) },
          { path: '/help/keys', element: wait(<KeysPage />) },
          { path: '/help/about', element: wait(<AboutPage />) },
        ],
      },
      {
        path: '/joint/:id',
        element: wait(<JointFrame />),
        children: [
          // A view that fails leaves the frame standing, with undo, history and export.
          {
            errorElement: <Oops />,
            children: [
              { index: true, element: <Navigate to="brief" replace /> },
              { path: 'brief', element: wait(<BriefView />) },
              {
                path: 'line',
                element: wait(<LineFrame />),
                children: [
                  { index: true, element: wait(<LineView />) },
                  { path: 'motor', element: wait(<MotorView />) },
                  { path: 'find', element: wait(<FindView />) },
                  { path: 'ratio', element: wait(<DeskView />) },
                  { path: 'shares', element: wait(<SharesView />) },
                  { path: 'what-if', element: wait(<WhatIfView />) },
                  { path: 'compare', element: wait(<CompareView />) },
                ],
              },
              { path: 'stage', element: <Navigate to="1" replace /> },
              { path: 'stage/:stage', element: wait(<StageView />) },
              {
                path: 'make',
                element: wait(<MakeFrame />),
                children: [
                  { index: true, element: wait(<MakeView />) },
                  { path: 'fit', element: wait(<FitView />) },
                  { path: 'section', element: wait(<SectionView />) },
                  { path: 'space', element: wait(<LineSpaceView />) },
                  { path: 'together', element: wait(<TogetherView />) },
                  { path: 'schedule', element: wait(<ScheduleView />) },
                ],
              },
              { path: 'bench', element: wait(<BenchView />) },
              { path: 'review', element: wait(<ReviewView />) },
              { path: 'shop', element: wait(<ShopPage />) },
            ],
          },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
