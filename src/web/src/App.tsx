import { lazy, Suspense, useEffect } from 'react';
import { Route, Routes } from 'react-router';
import { BenchPage } from './bench/BenchPage';
import { onOtherTab, PersonProvider, useSession } from './session/session';
import { SignInPage } from './session/SignInPage';
import { keepFocus } from './ui/focus';
import { Shell } from './shell/Shell';
import { BathCalls } from './stations/cleaning/BathCalls';
import { stationPages } from './stations/registry';
import { Loading, Notice, Trouble } from './ui/states';

// Every page comes when it is asked for; a tray's is fetched while the bench is being read, so that it opens at once.
const trayPage = () => import('./tray/TrayPage');
const TrayPage = lazy(() => trayPage().then((m) => ({ default: m.TrayPage })));
const MyBenchPage = lazy(() => import('./session/MyBenchPage').then((m) => ({ default: m.MyBenchPage })));
const CheckInPage = lazy(() => import('./stations/intake/CheckInPage').then((m) => ({ default: m.CheckInPage })));
const StockPage = lazy(() => import('./stations/stock/StockPage').then((m) => ({ default: m.StockPage })));
const BathsPage = lazy(() => import('./stations/cleaning/BathsPage').then((m) => ({ default: m.BathsPage })));
const FirstStartPage = lazy(() => import('./session/FirstStartPage').then((m) => ({ default: m.FirstStartPage })));
const PeoplePage = lazy(() => import('./shop/PeoplePage').then((m) => ({ default: m.PeoplePage })));
const RulesPage = lazy(() => import('./shop/RulesPage').then((m) => ({ default: m.RulesPage })));
const KnowledgePage = lazy(() => import('./shop/KnowledgePage').then((m) => ({ default: m.KnowledgePage })));
const KnowledgeTablePage = lazy(() =>
  import('./shop/KnowledgeTablePage').then((m) => ({ default: m.KnowledgeTablePage })),
);
const LabelPage = lazy(() => import('./tray/LabelPage').then((m) => ({ default: m.LabelPage })));
const OwnersPage = lazy(() => import('./shop/OwnersPage').then((m) => ({ default: m.OwnersPage })));
const SheetsPage = lazy(() => import('./shop/SheetsPage').then((m) => ({ default: m.SheetsPage })));
const SheetPage = lazy(() => import('./shop/SheetPage').then((m) => ({ default: m.SheetPage })));
const SheetFormPage = lazy(() => import('./shop/SheetFormPage').then((m) => ({ default: m.SheetFormPage })));
const ReportPage = lazy(() => import('./stations/handover/ReportPage').then((m) => ({ default: m.ReportPage })));

export function App() {
  const { query, refresh } = useSession();
  useEffect(() => {
    // Any call that finds the session ended leads back here, and from here to the sign-in.
    const ended = (): void => void refresh();
    window.addEventListener('blue-dawn:signed-out', ended);
    const quiet = onOtherTab(ended);
    return () => {
      window.removeEventListener('blue-dawn:signed-out', ended);
      quiet();
    };
  }, [refresh]);

  useEffect(keepFocus, []);

  useEffect(() => {
    const ahead = setTimeout(() => void trayPage(), 500);
    return () => clearTimeout(ahead);
  }, []);

  if (query.isPending) return <Loading what="Blue Dawn" />;
  if (!query.data) return <Trouble error={query.error} retry={() => void query.refetch()} />;
  if (query.data.toSetUp)
    return (
      <Suspense fallback={<Loading what="Blue Dawn" />}>
        <FirstStartPage />
      </Suspense>
    );
  if (!query.data.person) return <SignInPage session={query.data} />;
  return (
    <PersonProvider person={query.data.person}>
      <Routes>
        <Route element={<Shell calls={<BathCalls />} />}>
          <Route index element={<BenchPage />} />
          <Route path="check-in" element={<CheckInPage />} />
          <Route path="my-bench" element={<MyBenchPage />} />
          <Route path="tray/:number/report" element={<ReportPage />} />
          <Route path="tray/:number/label" element={<LabelPage />} />
          <Route path="tray/:number/:station?/:step?" element={<TrayPage pages={stationPages} />} />
          <Route path="people" element={<PeoplePage />} />
          <Route path="rules" element={<RulesPage />} />
          <Route path="knowledge" element={<KnowledgePage />} />
          <Route path="knowledge/:room/:table" element={<KnowledgeTablePage />} />
          <Route path="owners" element={<OwnersPage />} />
          <Route path="sheets" element={<SheetsPage />} />
          <Route path="sheets/new" element={<SheetFormPage />} />
          <Route path="sheets/:code" element={<SheetPage />} />
          <Route path="sheets/:code/issue" element={<SheetFormPage />} />
          <Route path="baths" element={<BathsPage />} />
          <Route path="stock/:part?" element={<StockPage />} />
          <Route
            path="*"
            element={
              <div className="p-5">
                <Notice tone="unsure" title="There is no page here.">
                  Pick a tray on the left, or go to the bench.
                </Notice>
              </div>
            }
          />
        </Route>
      </Routes>
    </PersonProvider>
  );
}
