import { lazy, Suspense, useEffect, type ReactNode } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { SignIn } from '../account/SignIn.js';
import { ShopFrame } from '../frame/ShopFrame.js';
import { Shelf } from '../shelf/Shelf.js';
import { useMeQuery } from './api.js';
import { PageBoundary } from './PageBoundary.js';
import { restoreUploads } from './restore.js';
import { Waiting } from './Waiting.js';

const Claim = lazy(() => import('../account/Claim.js').then((m) => ({ default: m.Claim })));
const Recover = lazy(() => import('../account/Recover.js').then((m) => ({ default: m.Recover })));
const SetUp = lazy(() => import('../account/SetUp.js').then((m) => ({ default: m.SetUp })));
const caseFrame = (): Promise<typeof import('../frame/CaseFrame.js')> => import('../frame/CaseFrame.js');
// Asked for while the server is still being asked who is here.
if (window.location.pathname.startsWith('/case/')) void caseFrame().catch(() => undefined);
const CaseFrame = lazy(() => caseFrame().then((m) => ({ default: m.CaseFrame })));
const NewCase = lazy(() => import('../shelf/NewCase.js').then((m) => ({ default: m.NewCase })));
const Patterns = lazy(() => import('../shelf/Patterns.js').then((m) => ({ default: m.Patterns })));
const Shared = lazy(() => import('../shared/Shared.js').then((m) => ({ default: m.Shared })));
const Intake = lazy(() => import('../stages/intake/Intake.js').then((m) => ({ default: m.Intake })));
const Opening = lazy(() => import('../stages/opening/Opening.js').then((m) => ({ default: m.Opening })));
const Strip = lazy(() => import('../stages/strip/Strip.js').then((m) => ({ default: m.Strip })));
const Pictures = lazy(() => import('../stages/pictures/Pictures.js').then((m) => ({ default: m.Pictures })));
const Sheets = lazy(() => import('../sheets/Sheets.js').then((m) => ({ default: m.Sheets })));
const Finish = lazy(() => import('../finish/Finish.js').then((m) => ({ default: m.Finish })));
const CapturePage = lazy(() => import('../capture/Capture.js').then((m) => ({ default: m.CapturePage })));
const Bench = lazy(() => import('../stages/bench/Bench.js').then((m) => ({ default: m.Bench })));
const StationPage = lazy(() => import('../stages/station/StationPage.js').then((m) => ({ default: m.StationPage })));
const Measure = lazy(() => import('../stages/measure/Measure.js').then((m) => ({ default: m.Measure })));
const LoadsStage = lazy(() => import('../stages/loads/LoadsStage.js').then((m) => ({ default: m.LoadsStage })));
const ReadingGrid = lazy(() => import('../stages/measure/ReadingGrid.js').then((m) => ({ default: m.ReadingGrid })));
const StudioPage = lazy(() => import('../studio/StudioPage.js').then((m) => ({ default: m.StudioPage })));
const Compare = lazy(() => import('../stages/compare/Compare.js').then((m) => ({ default: m.Compare })));
const SecondOpinion = lazy(() => import('../stages/opinion/SecondOpinion.js').then((m) => ({ default: m.SecondOpinion })));
const GradeBook = lazy(() => import('../gradeBook/GradeBook.js').then((m) => ({ default: m.GradeBook })));
const Gauges = lazy(() => import('../gauges/Gauges.js').then((m) => ({ default: m.Gauges })));
const CauseStage = lazy(() => import('../stages/cause/CauseStage.js').then((m) => ({ default: m.CauseStage })));
const SequencePage = lazy(() => import('../stages/cause/SequencePage.js').then((m) => ({ default: m.SequencePage })));
const PairPage = lazy(() => import('../stages/cause/PairPage.js').then((m) => ({ default: m.PairPage })));
const AnswersPage = lazy(() => import('../stages/cause/AnswersPage.js').then((m) => ({ default: m.AnswersPage })));
const DecideStage = lazy(() => import('../stages/decide/DecideStage.js').then((m) => ({ default: m.DecideStage })));
const Prices = lazy(() => import('../prices/Prices.js').then((m) => ({ default: m.Prices })));
const Across = lazy(() => import('../across/Across.js').then((m) => ({ default: m.Across })));
const TruthPage = lazy(() => import('../stages/truth/TruthPage.js').then((m) => ({ default: m.TruthPage })));
const Practice = lazy(() => import('../practice/Practice.js').then((m) => ({ default: m.Practice })));
const OilList = lazy(() => import('../oil/OilList.js').then((m) => ({ default: m.OilList })));
const PartsShelfPage = lazy(() => import('../parts/PartsShelfPage.js').then((m) => ({ default: m.PartsShelfPage })));
const TwoStripsPage = lazy(() => import('../oil/TwoStripsPage.js').then((m) => ({ default: m.TwoStripsPage })));
const EngineLogPage = lazy(() => import('../oil/EngineLogPage.js').then((m) => ({ default: m.EngineLogPage })));
const Policy = lazy(() => import('../policy/Policy.js').then((m) => ({ default: m.Policy })));
const DocumentStage = lazy(() => import('../stages/document/DocumentStage.js').then((m) => ({ default: m.DocumentStage })));
const LedgerStage = lazy(() => import('../stages/ledger/LedgerStage.js').then((m) => ({ default: m.LedgerStage })));

export function App(): ReactNode {
  const { data: me, isLoading } = useMeQuery();
  useEffect(() => {
    if (me) restoreUploads(me);
  }, [me]);
  if (isLoading) return <Waiting what="Opening the shop" />;
  if (!me)
    return (
      <PageBoundary>
        <Suspense fallback={<Waiting what="Fetching the page" />}>
          <Routes>
            <Route path="/claim" element={<Claim />} />
            <Route path="/recover" element={<Recover />} />
            <Route path="/shared/:token" element={<Shared />} />
            <Route path="*" element={<SignIn />} />
          </Routes>
        </Suspense>
      </PageBoundary>
    );
  return (
    <PageBoundary>
      <Suspense fallback={<Waiting what="Fetching the page" />}>
        <Routes>
          <Route element={<ShopFrame me={me} />}>
            <Route path="/" element={<Shelf me={me} />} />
            <Route path="/new" element={<NewCase />} />
            <Route path="/across" element={<Across me={me} />} />
            <Route path="/practice" element={<Practice me={me} />} />
            <Route path="/parts" element={<PartsShelfPage />} />
            <Route path="/oil" element={<OilList me={me} />} />
            <Route path="/oil/:engineId/strips" element={<TwoStripsPage me={me} />} />
            <Route path="/oil/:engineId" element={<EngineLogPage me={me} />} />
            <Route path="/patterns" element={<Patterns />} />
            <Route path="/studio" element={<StudioPage />} />
            <Route path="/grade-book" element={<GradeBook me={me} />} />
            <Route path="/policy" element={<Policy me={me} />} />
            <Route path="/sheets/:sheetId?" element={<Sheets me={me} />} />
            <Route path="/prices" element={<Prices me={me} />} />
            <Route path="/finish" element={<Finish />} />
            <Route path="/gauges/:gaugeId?" element={<Gauges me={me} />} />
            <Route path="/set-up" element={<SetUp me={me} />} />
          </Route>
          <Route path="/case/:caseId" element={<CaseFrame me={me} />}>
            <Route index element={<Navigate to="bench" replace />} />
            <Route path="intake" element={<Intake />} />
            <Route path="opening/:checkId?" element={<Opening />} />
            <Route path="strip/:stepId?" element={<Strip />} />
            <Route path="pictures" element={<Pictures />} />
            <Route path="bench" element={<Bench />} />
            <Route path="station/:stationId" element={<StationPage />} />
            <Route path="compare/:ids?" element={<Compare />} />
            <Route path="second-opinion/:stationId?" element={<SecondOpinion />} />
            <Route path="measure/all" element={<ReadingGrid />} />
            <Route path="measure/:placePath?" element={<Measure />} />
            <Route path="loads" element={<LoadsStage />} />
            <Route path="cause/sequence" element={<SequencePage />} />
            <Route path="cause/pair/:first?/:second?" element={<PairPage />} />
            <Route path="cause/answers" element={<AnswersPage />} />
            <Route path="cause/:causeId?" element={<CauseStage />} />
            <Route path="decide/:page?/:stepId?" element={<DecideStage />} />
            <Route path="document" element={<DocumentStage />} />
            <Route path="ledger" element={<LedgerStage />} />
            <Route path="truth" element={<TruthPage />} />
          </Route>
          <Route path="/shared/:token" element={<Shared />} />
          <Route path="/capture/:caseId" element={<CapturePage me={me} />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </PageBoundary>
  );
}
