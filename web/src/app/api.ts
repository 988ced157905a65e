import { createApi, fetchBaseQuery, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import type {
  AccountChange,
  AcrossAnswer,
  DrillAnswerRequest,
  DrillAnswers,
  LikeCases,
  PracticeAnswerRequest,
  PracticeEngineRequest,
  PracticeEngines,
  PracticeShown,
  FoundCases,
  ShopPriors,
  CaseEngine,
  EngineChange,
  EngineLine,
  EngineLogAnswer,
  EngineRequest,
  LaboratoryRequest,
  LogLinesRequest,
  AccountRequest,
  AppendRequest,
  ClaimRequest,
  GaugeCheckRequest,
  GradeBookRequest,
  Letter,
  LettersRequest,
  PartiesRequest,
  PasswordRequest,
  PolicyRequest,
  PresenceRequest,
  PriceBookRequest,
  ReadingBatchRequest,
  RecoverRequest,
  RedactRequest,
  ReferenceRequest,
  ShareRequest,
  ShopRequest,
  SignInRequest,
  SignRequest,
  Account,
  ApiError,
  AppendResponse,
  CaseParties,
  CaseResponse,
  CaseSummary,
  GaugeCheck,
  GradeBookVersion,
  ImportAnswer,
  Me,
  NewCaseRequest,
  NewShareLink,
  PdfProgress,
  PolicyChange,
  Present,
  PriceBookVersion,
  ReadingBatch,
  ReferencePart,
  SealLine,
  SessionInfo,
  SharedAccount,
  ShareLink,
  ShelfOrder,
  ShelfPage,
  SheetRequest,
  ShopKeys,
  ShopRecord,
  StampSaid,
  StandIn,
} from '@true-ledger/contract';
import { hear } from './live.js';
import type { PartsShelf } from '@true-ledger/core/across';
import type { LetterTo } from '@true-ledger/core/report';
import { asProblem, fetchJson, patience } from './server.js';
import type { Gauge } from '@true-ledger/core/units';
import type { GaugeFaults, SpecSheet } from '@true-ledger/core/measure';
import type { KeptEntry, LedgerEntry } from '@true-ledger/core/ledger';

/** What is asked of the shelf. `waits` and `stage` empty: any. */
interface ShelfQuestion {
  readonly words: string;
  readonly page: number;
  readonly size: number;
  readonly shelved: 'yes' | 'no';
  readonly stage: string;
  readonly waits: string;
  readonly mine: 'yes' | 'no';
  readonly order: ShelfOrder;
}

const raw = fetchBaseQuery({ baseUrl: '/api', credentials: 'same-origin' });

const baseQuery: BaseQueryFn<Parameters<typeof raw>[0], unknown, ApiError> = async (args, apiObject, extra) => {
  const result = await raw(args, apiObject, extra);
  if (!result.error) return { data: result.data };
  const problem = asProblem(result.error);
  return { error: problem };
};

/** Entries of a case after a number; null when they could not be fetched now. */
async function newEntries(caseId: string, after: number): Promise<readonly LedgerEntry[] | null> {
  const answer = await fetchJson<readonly LedgerEntry[]>(`/api/cases/${caseId}/entries?after=${after}`);
  return answer.ok ? answer.value : null;
}

/** Who is signed in is asked again only after it worked: asking after a refusal would take the page, and its answer, away. */
const signedIn = (result: Me | undefined): Array<'me' | 'shelf'> => (result ? ['me', 'shelf'] : []);

export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: [
    'me',
    'shelf',
    'accounts',
    'seals',
    'shop',
    'parties',
    'sessions',
    'gauges',
    'checks',
    'standIns',
    'sheets',
    'reading',
    'books',
    'policy',
    'references',
    'shares',
    'prices',
    'engines',
    'across',
    'drills',
    'practice',
  ],
  endpoints: (b) => ({
    me: b.query<Me, void>({ query: () => '/me', providesTags: ['me'] }),
    signIn: b.mutation<Me, SignInRequest>({
      query: (body) => ({ url: '/sign-in', method: 'POST', body }),
      invalidatesTags: signedIn,
    }),
    claim: b.mutation<Me, ClaimRequest>({
      query: (body) => ({ url: '/claim', method: 'POST', body }),
      invalidatesTags: signedIn,
    }),
    recover: b.mutation<Me, RecoverRequest>({
      query: (body) => ({ url: '/recover', method: 'POST', body }),
      invalidatesTags: signedIn,
    }),
    changePassword: b.mutation<void, PasswordRequest>({ query: (body) => ({ url: '/password', method: 'POST', body }) }),
    room: b.query<{ freeMb: number }, void>({ query: () => '/network/room' }),
    network: b.query<{ addresses: readonly string[] }, void>({ query: () => '/network' }),
    demo: b.query<{ taken: number; total: number }, void>({ query: () => '/demo' }),
    signOut: b.mutation<void, void>({ query: () => ({ url: '/sign-out', method: 'POST' }) }),
    shelf: b.query<CaseSummary[], void>({ query: () => '/cases', providesTags: ['shelf'] }),
    shelfPage: b.query<ShelfPage, ShelfQuestion>({
      query: (params) => ({ url: '/cases/page', params }),
      providesTags: ['shelf'],
      keepUnusedDataFor: 30,
      async onCacheEntryAdded(_, { dispatch, cacheDataLoaded, cacheEntryRemoved }) {
        await cacheDataLoaded.catch(() => undefined);
        let soon: ReturnType<typeof setTimeout> | undefined;
        // Many entries in a row ask for the page once.
        const leave = hear(() => {
          clearTimeout(soon);
          soon = setTimeout(() => void dispatch(api.util.invalidateTags(['shelf'])), 600);
        });
        await cacheEntryRemoved;
        clearTimeout(soon);
        leave();
      },
    }),
    createCase: b.mutation<CaseResponse, NewCaseRequest>({
      query: (body) => ({ url: '/cases', method: 'POST', body }),
      invalidatesTags: ['shelf'],
    }),
    getCase: b.query<CaseResponse, string>({
      query: (id) => `/cases/${id}`,
      keepUnusedDataFor: 30,
      async onCacheEntryAdded(id, { dispatch, updateCachedData, cacheDataLoaded, cacheEntryRemoved, getCacheEntry }) {
        try {
          await cacheDataLoaded;
        } catch {
          return;
        }
        let again: ReturnType<typeof setTimeout> | undefined;
        const wait = patience(1000, 15_000);
        const tell = (behind: boolean): void => void dispatch({ type: 'outbox/behindChanged', payload: { caseId: id, behind } });
        const catchUp = async (): Promise<void> => {
          clearTimeout(again);
          const held = getCacheEntry().data;
          if (!held) return;
          const [fetched, { foldNew }] = await Promise.all([newEntries(id, held.state.seq), import('./foldNew.js')]);
          if (fetched === null) {
            // Not forgotten: what was heard of is fetched as soon as it can be.
            tell(true);
            again = setTimeout(() => void catchUp(), wait.next());
            return;
          }
          wait.calm();
          tell(false);
          const current = getCacheEntry().data ?? held;
          const next = foldNew(current.state, fetched);
          if (next === null) void dispatch(api.endpoints.getCase.initiate(id, { forceRefetch: true, subscribe: false }));
          else if (next !== current.state) updateCachedData(() => ({ ...current, state: next }));
        };
        const leave = hear((heard) => {
          if (heard === 'again' || (heard.caseId === id && heard.seq > (getCacheEntry().data?.state.seq ?? 0))) void catchUp();
        });
        // Whatever came between fetching the case and listening.
        void catchUp();
        await cacheEntryRemoved;
        clearTimeout(again);
        leave();
      },
    }),
    append: b.mutation<AppendResponse, AppendRequest & { caseId: string }>({
      query: ({ caseId, entries }) => ({ url: `/cases/${caseId}/entries`, method: 'POST', body: { entries } }),
    }),
    entries: b.query<KeptEntry[], { caseId: string; seq: number }>({
      query: ({ caseId }) => `/cases/${caseId}/entries`,
      keepUnusedDataFor: 5,
    }),
    gauges: b.query<Gauge[], void>({ query: () => '/gauges', providesTags: ['gauges'] }),
    saveGauge: b.mutation<Gauge, Gauge>({ query: (body) => ({ url: '/gauges', method: 'PUT', body }), invalidatesTags: ['gauges'] }),
    gaugeChecks: b.query<GaugeCheck[], string>({ query: (id) => `/gauges/${encodeURIComponent(id)}/checks`, providesTags: ['checks'] }),
    checkGauge: b.mutation<GaugeCheck, GaugeCheckRequest & { gaugeId: string }>({
      query: ({ gaugeId, ...body }) => ({ url: `/gauges/${encodeURIComponent(gaugeId)}/checks`, method: 'POST', body }),
      invalidatesTags: ['gauges', 'checks'],
    }),
    standIns: b.query<StandIn[], void>({ query: () => '/stand-ins', providesTags: ['standIns'] }),
    holdStandIn: b.mutation<StandIn, { id: string; faults: GaugeFaults }>({
      query: ({ id, faults }) => ({ url: `/stand-ins/${encodeURIComponent(id)}`, method: 'PUT', body: faults }),
      invalidatesTags: ['standIns'],
    }),
    putAwayStandIn: b.mutation<void, string>({
      query: (id) => ({ url: `/stand-ins/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['standIns'],
    }),
    sheets: b.query<SpecSheet[], void>({ query: () => '/sheets', providesTags: ['sheets'] }),
    sheetVersions: b.query<SpecSheet[], string>({ query: (id) => `/sheets/${id}`, providesTags: ['sheets'] }),
    saveSheet: b.mutation<SpecSheet, SheetRequest>({
      query: (body) => ({ url: '/sheets', method: 'POST', body }),
      invalidatesTags: ['sheets'],
    }),
    readingBatch: b.query<ReadingBatch, string>({ query: (id) => `/cases/${id}/readings-of-pictures`, providesTags: ['reading'] }),
    readAll: b.mutation<ReadingBatch, ReadingBatchRequest & { caseId: string }>({
      query: ({ caseId, again }) => ({ url: `/cases/${caseId}/readings-of-pictures`, method: 'POST', body: { again } }),
      invalidatesTags: ['reading'],
    }),
    stopReading: b.mutation<ReadingBatch, string>({
      query: (id) => ({ url: `/cases/${id}/readings-of-pictures`, method: 'DELETE' }),
      invalidatesTags: ['reading'],
    }),
    gradeBooks: b.query<GradeBookVersion[], void>({ query: () => '/grade-books', providesTags: ['books'] }),
    saveGradeBook: b.mutation<readonly GradeBookVersion[], GradeBookRequest>({
      query: (body) => ({ url: '/grade-books', method: 'POST', body }),
      invalidatesTags: ['books'],
    }),
    shares: b.query<ShareLink[], string>({ query: (id) => `/cases/${id}/shares`, providesTags: ['shares'] }),
    makeShare: b.mutation<NewShareLink, ShareRequest & { caseId: string }>({
      query: ({ caseId, ...body }) => ({ url: `/cases/${caseId}/shares`, method: 'POST', body }),
      invalidatesTags: ['shares'],
    }),
    revokeShare: b.mutation<ShareLink[], { caseId: string; id: string }>({
      query: ({ caseId, id }) => ({ url: `/cases/${caseId}/shares/${id}`, method: 'DELETE' }),
      invalidatesTags: ['shares'],
    }),
    sharedAccount: b.query<SharedAccount, string>({ query: (token) => `/shared/${token}` }),
    signAccount: b.mutation<LedgerEntry, SignRequest & { caseId: string }>({
      query: ({ caseId, ...body }) => ({ url: `/cases/${caseId}/account/sign`, method: 'POST', body }),
      invalidatesTags: ['shelf'],
    }),
    redact: b.mutation<LedgerEntry, RedactRequest & { caseId: string }>({
      query: ({ caseId, ...body }) => ({ url: `/cases/${caseId}/redactions`, method: 'POST', body }),
      invalidatesTags: ['shelf'],
    }),
    presence: b.mutation<Present[], PresenceRequest & { caseId: string }>({
      query: ({ caseId, ...body }) => ({ url: `/cases/${caseId}/presence`, method: 'POST', body }),
    }),
    takeBundle: b.mutation<ImportAnswer, File>({
      query: (file) => {
        const body = new FormData();
        body.append('file', file);
        return { url: '/bundles', method: 'POST', body };
      },
      invalidatesTags: ['shelf'],
    }),
    prices: b.query<PriceBookVersion[], void>({ query: () => '/prices', providesTags: ['prices'] }),
    savePrices: b.mutation<PriceBookVersion[], PriceBookRequest>({
      query: (body) => ({ url: '/prices', method: 'POST', body }),
      invalidatesTags: ['prices'],
    }),
    pdfRun: b.query<{ progress: PdfProgress | null }, { caseId: string; run: string }>({
      query: ({ caseId, run }) => `/cases/${caseId}/pdf-runs/${run}`,
      keepUnusedDataFor: 0,
    }),
    shop: b.query<ShopRecord, void>({ query: () => '/shop', providesTags: ['shop'] }),
    saveShop: b.mutation<ShopRecord, ShopRequest>({
      query: (body) => ({ url: '/shop', method: 'PUT', body }),
      invalidatesTags: ['shop'],
    }),
    saveLetters: b.mutation<ShopRecord, LettersRequest>({
      query: (body) => ({ url: '/shop/letters', method: 'PUT', body }),
      invalidatesTags: ['shop'],
    }),
    // Made anew for every head of the ledger; nothing but the case and the templates goes into it.
    letter: b.query<Letter, { caseId: string; to: LetterTo; head: string }>({
      query: ({ caseId, to }) => `/cases/${caseId}/letters/${to}`,
      providesTags: ['shop', 'parties'],
      keepUnusedDataFor: 0,
    }),
    parties: b.query<CaseParties, string>({ query: (caseId) => `/cases/${caseId}/parties`, providesTags: ['parties'] }),
    saveParties: b.mutation<CaseParties, PartiesRequest & { caseId: string }>({
      query: ({ caseId, ...body }) => ({ url: `/cases/${caseId}/parties`, method: 'PUT', body }),
      invalidatesTags: ['parties'],
    }),
    practiceEngines: b.query<PracticeEngines, void>({ query: () => '/practice/engines', providesTags: ['practice'] }),
    makePracticeEngine: b.mutation<CaseResponse, PracticeEngineRequest>({
      query: (body) => ({ url: '/practice/engines', method: 'POST', body }),
      invalidatesTags: ['practice', 'shelf'],
    }),
    practiceLook: b.mutation<PracticeShown, { caseId: string; look: string }>({
      query: ({ caseId, look }) => ({ url: `/practice/cases/${caseId}/looks`, method: 'POST', body: { look } }),
    }),
    openPractice: b.mutation<CaseResponse, { caseId: string } & PracticeAnswerRequest>({
      query: ({ caseId, answer }) => ({ url: `/practice/cases/${caseId}/open`, method: 'POST', body: { answer } }),
      invalidatesTags: ['practice'],
    }),
    drillAnswers: b.query<DrillAnswers, void>({ query: () => '/practice/answers', providesTags: ['drills'] }),
    answerDrill: b.mutation<DrillAnswers, DrillAnswerRequest>({
      query: (body) => ({ url: '/practice/answers', method: 'POST', body }),
      invalidatesTags: ['drills'],
    }),
    across: b.query<AcrossAnswer, void>({ query: () => '/across', providesTags: ['across'] }),
    partsShelf: b.query<PartsShelf, void>({ query: () => '/across/parts' }),
    likeCases: b.query<LikeCases, string>({ query: (id) => `/across/like/${id}`, keepUnusedDataFor: 60 }),
    searchAll: b.query<FoundCases, string>({ query: (words) => ({ url: '/across/search', params: { words } }), keepUnusedDataFor: 20 }),
    shopPriors: b.query<ShopPriors, { family: string; without: string }>({
      query: (params) => ({ url: '/across/priors', params }),
      keepUnusedDataFor: 0,
    }),
    switchPriors: b.mutation<void, boolean>({
      query: (on) => ({ url: '/across/priors', method: 'PUT', body: { on } }),
      invalidatesTags: ['across'],
    }),
    engines: b.query<EngineLine[], void>({ query: () => '/engines', providesTags: ['engines'] }),
    engine: b.query<EngineLogAnswer, string>({ query: (id) => `/engines/${id}`, providesTags: ['engines'] }),
    makeEngine: b.mutation<EngineLogAnswer, EngineRequest>({
      query: (body) => ({ url: '/engines', method: 'POST', body }),
      invalidatesTags: ['engines'],
    }),
    changeEngine: b.mutation<EngineLogAnswer, EngineChange & { id: string }>({
      query: ({ id, ...body }) => ({ url: `/engines/${id}`, method: 'PUT', body }),
      invalidatesTags: ['engines'],
    }),
    writeLines: b.mutation<EngineLogAnswer, LogLinesRequest & { id: string }>({
      query: ({ id, ...body }) => ({ url: `/engines/${id}/lines`, method: 'POST', body }),
      invalidatesTags: ['engines'],
    }),
    mergeEngine: b.mutation<EngineLogAnswer, { id: string; into: string | null }>({
      query: ({ id, into }) => ({ url: `/engines/${id}/merged`, method: 'PUT', body: { into } }),
      invalidatesTags: ['engines'],
    }),
    sendSample: b.mutation<EngineLogAnswer, LaboratoryRequest & { id: string }>({
      query: ({ id, ...body }) => ({ url: `/engines/${id}/laboratory`, method: 'POST', body }),
      invalidatesTags: ['engines'],
    }),
    collectSamples: b.mutation<EngineLogAnswer, string>({
      query: (id) => ({ url: `/engines/${id}/laboratory/collected`, method: 'POST' }),
      invalidatesTags: ['engines'],
    }),
    caseEngine: b.query<CaseEngine, string>({ query: (caseId) => `/cases/${caseId}/engine`, providesTags: ['engines'] }),
    hangCase: b.mutation<CaseEngine, { caseId: string; engine: string | null }>({
      query: ({ caseId, engine }) => ({ url: `/cases/${caseId}/engine`, method: 'PUT', body: { engine } }),
      invalidatesTags: ['engines'],
    }),
    policy: b.query<PolicyChange[], void>({ query: () => '/policy', providesTags: ['policy'] }),
    savePolicy: b.mutation<PolicyChange[], PolicyRequest>({
      query: (body) => ({ url: '/policy', method: 'POST', body }),
      invalidatesTags: ['policy'],
    }),
    references: b.query<ReferencePart[], void>({ query: () => '/references', providesTags: ['references'] }),
    keepReference: b.mutation<ReferencePart, ReferenceRequest>({
      query: (body) => ({ url: '/references', method: 'POST', body }),
      invalidatesTags: ['references'],
    }),
    removeReference: b.mutation<void, string>({
      query: (id) => ({ url: `/references/${id}`, method: 'DELETE' }),
      invalidatesTags: ['references'],
    }),
    accounts: b.query<Account[], void>({ query: () => '/accounts', providesTags: ['accounts'] }),
    createAccount: b.mutation<Account, AccountRequest>({
      query: (body) => ({ url: '/accounts', method: 'POST', body }),
      invalidatesTags: ['accounts'],
    }),
    changeAccount: b.mutation<Account, { id: string; change: AccountChange }>({
      query: ({ id, change }) => ({ url: `/accounts/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['accounts'],
    }),
    accountCases: b.query<{ cases: readonly string[] | null }, string>({
      query: (id) => `/accounts/${id}/cases`,
      providesTags: ['accounts'],
    }),
    seals: b.query<SealLine[], void>({ query: () => '/seals', providesTags: ['seals'] }),
    shopKeys: b.query<ShopKeys, void>({ query: () => '/seals/keys' }),
    stampOfSeal: b.query<StampSaid, string>({ query: (day) => `/seals/${day}/stamp`, providesTags: ['seals'] }),
    stampSeal: b.mutation<StampSaid, string>({
      query: (day) => ({ url: `/seals/${day}/stamp`, method: 'POST' }),
      invalidatesTags: ['seals'],
    }),
    sessions: b.query<SessionInfo[], void>({ query: () => '/sessions', providesTags: ['sessions'] }),
    revokeSession: b.mutation<void, string>({
      query: (id) => ({ url: `/sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['sessions'],
    }),
  }),
});

export const {
  useMeQuery,
  useSignInMutation,
  useClaimMutation,
  useSignOutMutation,
  useRecoverMutation,
  useChangePasswordMutation,
  useDemoQuery,
  useRoomQuery,
  useNetworkQuery,
  useAccountCasesQuery,
  useShelfQuery,
  useShelfPageQuery,
  useCreateCaseMutation,
  useGetCaseQuery,
  useEntriesQuery,
  useGaugesQuery,
  useSaveGaugeMutation,
  useGaugeChecksQuery,
  useCheckGaugeMutation,
  useStandInsQuery,
  useHoldStandInMutation,
  usePutAwayStandInMutation,
  useSheetsQuery,
  useSheetVersionsQuery,
  useSaveSheetMutation,
  useReadingBatchQuery,
  useReadAllMutation,
  useStopReadingMutation,
  useGradeBooksQuery,
  useSaveGradeBookMutation,
  useSharesQuery,
  useMakeShareMutation,
  useRevokeShareMutation,
  useSharedAccountQuery,
  useSignAccountMutation,
  useRedactMutation,
  usePresenceMutation,
  useTakeBundleMutation,
  usePricesQuery,
  useSavePricesMutation,
  usePolicyQuery,
  useSavePolicyMutation,
  useReferencesQuery,
  useKeepReferenceMutation,
  useRemoveReferenceMutation,
  useAccountsQuery,
  useCreateAccountMutation,
  useChangeAccountMutation,
  useLetterQuery,
  useSaveLettersMutation,
  usePartiesQuery,
  usePdfRunQuery,
  useSavePartiesMutation,
  useSaveShopMutation,
  useSealsQuery,
  useShopQuery,
  useSessionsQuery,
  useShopKeysQuery,
  useStampOfSealQuery,
  useStampSealMutation,
  useRevokeSessionMutation,
  useAcrossQuery,
  useAnswerDrillMutation,
  useDrillAnswersQuery,
  useLikeCasesQuery,
  usePartsShelfQuery,
  usePracticeEnginesQuery,
  useMakePracticeEngineMutation,
  usePracticeLookMutation,
  useOpenPracticeMutation,
  useSearchAllQuery,
  useLazyShopPriorsQuery,
  useSwitchPriorsMutation,
  useEnginesQuery,
  useEngineQuery,
  useMakeEngineMutation,
  useChangeEngineMutation,
  useWriteLinesMutation,
  useMergeEngineMutation,
  useSendSampleMutation,
  useCollectSamplesMutation,
  useCaseEngineQuery,
  useHangCaseMutation,
} = api;
