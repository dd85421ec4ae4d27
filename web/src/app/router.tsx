import { lazy, Suspense, type ReactNode } from 'react';
import { createBrowserRouter, Navigate, Outlet } from 'react-router';
import { JointsPage } from '../views/joints/JointsPage.tsx';
import { kindsKnown } from '../state/kinds.ts';
import { NotFound, Oops } from './Oops.tsx';

const wait = (node: ReactNode) => <Suspense fallback={<h1 className="label p-6">Laying out the sheet…</h1>}>{node}</Suspense>;
// The shelf of joints is the first page; what a joint needs follows when one is opened.
const JointFrame = lazy(() => Promise.all([import('./JointFrame.tsx'), kindsKnown()]).then(([m]) => ({ default: m.JointFrame })));
const BriefView = lazy(() => import('../views/brief/BriefView.tsx'));
const LineFrame = lazy(() => import('../views/line/LineFrame.tsx'));
const LineView = lazy(() => import('../views/line/LineView.tsx'));
const MotorView = lazy(() => import('../views/line/MotorView.tsx'));
const DeskView = lazy(() => import('../views/line/DeskView.tsx'));
const SharesView = lazy(() => import('../views/line/SharesView.tsx'));
const WhatIfView = lazy(() => import('../views/line/WhatIfView.tsx'));
const CompareView = lazy(() => import('../views/line/CompareView.tsx'));
const StageView = lazy(() => import('../views/stage/StageView.tsx'));
const MakeView = lazy(() => import('../views/make/MakeView.tsx'));
const BenchView = lazy(() => import('../views/bench/BenchView.tsx'));
const ReviewView = lazy(() => import('../views/review/ReviewView.tsx'));
const ShopPage = lazy(() => import('../views/shop/ShopPage.tsx'));

/** Pages by address; every view of a joint has one, so that it can be marked and gone back to. */
export const router = createBrowserRouter([
  {
    element: <Outlet />,
    errorElement: <Oops />,
    children: [
      { path: '/', element: <JointsPage /> },
      { path: '/shop', element: wait(<ShopPage />) },
      {
        path: '/joint/:id',
        element: wait(<JointFrame />),
        children: [
          { index: true, element: <Navigate to="brief" replace /> },
          { path: 'brief', element: wait(<BriefView />) },
          {
            path: 'line',
            element: wait(<LineFrame />),
            children: [
              { index: true, element: wait(<LineView />) },
              { path: 'motor', element: wait(<MotorView />) },
              { path: 'ratio', element: wait(<DeskView />) },
              { path: 'shares', element: wait(<SharesView />) },
              { path: 'what-if', element: wait(<WhatIfView />) },
              { path: 'compare', element: wait(<CompareView />) },
            ],
          },
          { path: 'stage', element: <Navigate to="1" replace /> },
          { path: 'stage/:stage', element: wait(<StageView />) },
          { path: 'make', element: wait(<MakeView />) },
          { path: 'bench', element: wait(<BenchView />) },
          { path: 'review', element: wait(<ReviewView />) },
          { path: 'shop', element: wait(<ShopPage />) },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
