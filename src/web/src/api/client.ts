import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Session = Schemas['SessionView'];
export type Person = Schemas['PersonView'];
export type Device = Schemas['DeviceView'];
export type FirstStart = Schemas['FirstStartInput'];
export type StaffLine = Schemas['StaffLine'];
export type StaffCode = Schemas['StaffCode'];
export type Rule = Schemas['RuleView'];
export type BenchHand = Schemas['BenchHand'];
export type OwnerLine = Schemas['OwnerLine'];
export type KnowledgeView = Schemas['KnowledgeView'];
export type KnowledgeVersion = Schemas['KnowledgeVersionLine'];
export type KnowledgeTable = Schemas['KnowledgeTableView'];
export type KnowledgeWish = Schemas['KnowledgeWish'];
export type KnowledgeLook = Schemas['KnowledgeLook'];
export type StandingRow = Schemas['StandingRow'];
export type SpecSheet = Schemas['SpecSheet'];
export type SheetSummary = Schemas['SheetSummary'];
export type SheetForm = Schemas['SheetFormView'];
export type SheetGroup = Schemas['SheetGroup'];
export type TypedSheet = Schemas['TypedSheet'];
export type StartSeries = Schemas['OpeningSeriesInput'];
export type SheetTaken = Schemas['SheetTaken'];
export type ShopView = Schemas['ShopView'];
export type TypedBath = Schemas['TypedBath'];
export type SheetFileLook = Schemas['SheetFileLook'];
export type SheetIssue = Schemas['SheetIssue'];
export type Bench = Schemas['BenchView'];
export type AtHand = Schemas['AtHandView'];
export type BenchTray = Schemas['BenchTray'];
export type Found = Schemas['FoundView'];
export type WaitsFor = Schemas['WaitsFor'];
export type Tray = Schemas['TrayView'];
export type Slip = Schemas['Slip'];
export type KnownStamp = Schemas['KnownStamp'];
export type TrayFacts = Schemas['TrayFactsView'];
export type TrayPatch = Schemas['TrayPatch'];
export type Permission = Schemas['Permission'];
export type Finding = Schemas['Finding'];
export type Role = Schemas['Role'];
/** What one entry of a logbook says; every station has its own kinds. */
export type Note = Schemas['Note'];
export type DraftJudgement = Schemas['DraftJudgement'];
export type ReadingDraft = Schemas['ReadingDraft'];
export type NewTray = Schemas['NewTray'];
export type EntryInput = Schemas['EntryInput'];
export type EntryOutcome = Schemas['EntryOutcome'];
export type Signature = Schemas['Signature'];
export type FactsNote = Schemas['NoteFactsNote'];
export type SafetyCondition = Schemas['SafetyCondition'];
export type MarksNote = Schemas['NoteMarksNote'];
/** A note of one kind, or of several. */
export type NoteOf<K extends NonNullable<Note['kind']>> = Extract<Note, { kind?: K }>;
export type Station = Schemas['Station'];
export type StationView = Schemas['StationView'];
export type Line = Schemas['LineView'];
export type Entry = Schemas['EntryView'];
export type RemarkFate = Schemas['RemarkFate'];
export type OpenFault = Schemas['OpenFault'];
export type FaultOutcome = Schemas['FaultOutcome'];
export type ReportChapter = Schemas['ReportChapter'];
export type ReportPoint = Schemas['ReportPoint'];
export type Judgement = Schemas['Judgement'];
export type Verdict = Schemas['Verdict'];
export type Reading = Schemas['Reading'];
export type TypedReading = Schemas['TypedReading'];
export type EntryField = Schemas['EntryField'];
export type Sentence = Schemas['Sentence'];
export type Quantity = Schemas['Quantity'];
export type Dimension = Schemas['Dimension'];
export type Span = Schemas['Span'];
export type UnitSystem = Schemas['UnitSystem'];
export type IdentifyView = Schemas['IdentifyView'];
export type NumberCandidate = Schemas['NumberCandidate'];
export type Trait = Schemas['Trait'];
export type TraitQuestion = Schemas['TraitQuestion'];
export type ItemOffered = Schemas['ItemOffered'];
export type ItemKind = Schemas['ItemKind'];
export type PartKind = Schemas['PartKind'];
export type PartMatch = Schemas['PartMatch'];
export type WantedPart = Schemas['WantedPart'];
export type FitOption = Schemas['FitOption'];
export type FittingView = Schemas['FittingView'];
export type OptionStanding = Schemas['OptionStanding'];
export type StockView = Schemas['StockView'];
export type ShelfLine = Schemas['ShelfLine'];
export type ShelfStanding = Schemas['ShelfStanding'];
export type StoryChange = Schemas['StoryChange'];
export type Orders = Schemas['OrdersView'];
export type PartsStage = Schemas['PartsStage'];
export type StockMoveKind = Schemas['StockMoveKind'];
export type DonorView = Schemas['DonorView'];
export type BuyingView = Schemas['BuyingView'];
export type CatalogueFile = Schemas['CatalogueFile'];
export type ImportView = Schemas['ImportView'];
export type Report = Schemas['HandoverReport'];
export type Obstacle = Schemas['Obstacle'];
export type QuickAnswer = Schemas['QuickAnswer'];
export type CarburetorFamily = Schemas['CarburetorFamily'];
export type EngineKind = NonNullable<Schemas['EngineKind']>;
export type ChokeKind = NonNullable<Schemas['ChokeKind']>;
export type TraceView = Schemas['TraceView'];
export type Trace = Schemas['Trace'];
export type TraceNote = NoteOf<'findings' | 'fault' | 'apart' | 'safety' | 'told'>;
export type ToldBy = Schemas['ToldBy'];
export type TriedOutcome = Schemas['TriedOutcome'];
export type TriedFix = Schemas['TriedFix'];
export type OfferedCause = Schemas['OfferedCause'];
export type Story = Schemas['Story'];
export type Occurs = Schemas['Occurs'];
export type FuelKind = Schemas['FuelKind'];
export type Whose = Schemas['Whose'];
export type OilLevel = Schemas['OilLevel'];
export type CauseStanding = Schemas['CauseStanding'];
export type CheckValue = Schemas['CheckValue'];
export type EvidenceItem = Schemas['EvidenceItem'];
export type Said = Schemas['Said'];
export type ApartLevel = Schemas['ApartLevel'];
export type FaultWords = Schemas['FaultWords'];
export type LedgerView = Schemas['LedgerView'];
export type LedgerLine = Schemas['LedgerLine'];
export type LedgerNote = NoteOf<'job' | 'out' | 'stays' | 'back' | 'undo' | 'has' | 'cameBad'>;
export type OutNote = NoteOf<'out'>;
export type TrialNote = NoteOf<'trial'>;
export type TurnsNote = NoteOf<'turns'>;
export type Screw = Schemas['Screw'];
export type Origin = Schemas['Origin'];
export type Elsewhere = NonNullable<Schemas['Elsewhere']>;
export type StripPart = Schemas['StripPart'];
export type LineVerdict = Schemas['LineVerdict'];
export type Fate = Schemas['Fate'];
export type StackPlan = Schemas['StackPlan'];
export type BuildAdvice = Schemas['BuildAdvice'];
export type StackProblem = Schemas['StackProblem'];
export type NewPartSource = Schemas['NewPartSource'];
export type CleaningView = Schemas['CleaningView'];
export type CleaningNote = NoteOf<'soils' | 'method' | 'dry' | 'passage'>;
export type RecipeOffer = Schemas['RecipeOffer'];
export type CleaningPlan = Schemas['CleaningPlan'];
export type CleaningPiece = Schemas['CleaningPiece'];
export type CleanResult = Schemas['CleanResult'];
export type PassageStanding = Schemas['PassageStanding'];
export type BathsView = Schemas['BathsView'];
export type BathView = Schemas['BathView'];
export type BathEventKind = Schemas['BathEventKind'];
export type Basket = Schemas['Basket'];
export type Photo = Schemas['PhotoView'];

/** What the server says when something cannot be done (RFC 9457), or what stands in for it when it cannot be reached. */
export interface Problem {
  status: number;
  title: string;
  detail: string;
  /** Field by field, what is wrong and what to do. */
  errors: Record<string, string[]>;
  /** What the other has, for a conflict. */
  theirs?: TrayFacts | null;
  theirsBy?: string | null;
  version?: number | null;
  obstacles?: Obstacle[] | null;
  /** What became of each entry, when none of those sent was recorded. */
  outcomes?: EntryOutcome[];
  /** True when somebody else is signed in on this device than the page believes. */
  otherPerson?: boolean;
  /** True when the answer was no problem as this server states them. */
  unnamed?: boolean;
}

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }

  /**
   * True when trying again later can help: the server cannot be reached, is in trouble of its own, or asks for patience;
   * and when what answered names no reason, such as a page of something in between. Only a reason ends an entry.
   */
  get passing(): boolean {
    const { status, unnamed, otherPerson } = this.problem;
    return status === 0 || status >= 500 || status === 408 || status === 429 || (unnamed ?? otherPerson ?? false);
  }
}

let token = '';
export const setToken = (next: string): void => {
  token = next;
};

let person = '';
/** Says who this page believes is signed in; every write says it too. */
export const setPerson = (next: string): void => {
  person = next;
};

/** What every write carries. */
const writeHeaders = (): Record<string, string> => ({
  'X-Blue-Dawn-Token': token,
  ...(person ? { 'X-Blue-Dawn-Person': person } : {}),
});

let oldest: string | null = null;
const watchers = new Set<() => void>();

/** Whether what is shown comes from the server, or from this device because the server is away. */
export const seen = {
  subscribe: (watcher: () => void): (() => void) => {
    watchers.add(watcher);
    return () => watchers.delete(watcher);
  },
  /** When what is shown was seen at the server; null while the server answers. */
  since: (): string | null => oldest,
  fromDevice(date: string | null): void {
    const at = new Date(date ?? Date.now()).toISOString();
    if (oldest !== null && oldest <= at) return;
    oldest = at;
    watchers.forEach((tell) => tell());
  },
  fromServer(): void {
    if (oldest === null) return;
    oldest = null;
    watchers.forEach((tell) => tell());
  },
};

const client = createClient<paths>({ baseUrl: window.location.origin });
client.use({
  onRequest: ({ request }) => {
    if (request.method !== 'GET')
      for (const [name, value] of Object.entries(writeHeaders())) request.headers.set(name, value);
    return request;
  },
  onResponse: ({ response, schemaPath }) => {
    if (response.headers.get('X-Blue-Dawn-From') === 'device') seen.fromDevice(response.headers.get('Date'));
    else if (response.status < 500) seen.fromServer();
    if (response.status === 401 && schemaPath !== '/api/session')
      window.dispatchEvent(new Event('blue-dawn:signed-out'));
  },
});
export const api = client;

/** Sends a photo as it is; the server makes it anew. */
export async function sendPhoto(tray: number, id: string, file: Blob, part?: string | null): Promise<Photo> {
  const query = part ? `?${new URLSearchParams({ part })}` : '';
  return ask<Photo>(
    fetch(`/api/trays/${tray}/photos/${id}${query}`, {
      method: 'PUT',
      headers: { 'content-type': file.type || 'application/octet-stream', ...writeHeaders() },
      body: file,
    }).then(async (response) => {
      const body: unknown = await response.json().catch(() => undefined);
      return response.ok ? { data: body as Photo, response } : { error: body, response };
    }),
  );
}

/** Sends a catalogue file to be gone through; nothing is changed before it is accepted. */
export async function sendCatalogue(id: string, file: CatalogueFile, chosen: File): Promise<ImportView> {
  const query = new URLSearchParams({ file, name: chosen.name });
  return sendCsv<ImportView>('PUT', `/api/catalogue/imports/${id}?${query}`, chosen);
}

/** A table of spec sheets, as its bytes are: the server reads how a spreadsheet wrote it. */
export async function sendSheetTable(chosen: File, take: boolean, decimalComma: boolean): Promise<SheetFileLook> {
  const query = new URLSearchParams({ take: String(take), decimalComma: String(decimalComma) });
  return sendCsv<SheetFileLook>('POST', `/api/sheets/file.csv?${query}`, chosen);
}

/** A table of knowledge from a file: looked at by POST, accepted by PUT. */
export const sendKnowledgeTable = <T>(
  method: 'POST' | 'PUT',
  chosen: File,
  query: Record<string, string>,
): Promise<T> => sendCsv<T>(method, `/api/shop/knowledge/table.csv?${new URLSearchParams(query)}`, chosen);

/** Who brings a shop's archive: the code from the terminal, its lead, and their new password. */
export interface ArchiveBearer {
  code: string;
  userName: string;
  password: string;
}

/** A shop's archive into one that has nobody in it. Who brings it stands in headers: no body is read from anybody else. */
export const sendArchive = (chosen: File, who: ArchiveBearer): Promise<Session> =>
  ask<Session>(
    fetch('/api/session/first/archive', {
      method: 'POST',
      headers: {
        'content-type': 'application/zip',
        'x-setup-code': encodeURIComponent(who.code),
        'x-user-name': encodeURIComponent(who.userName),
        'x-new-password': encodeURIComponent(who.password),
        ...writeHeaders(),
      },
      body: chosen,
    }).then(async (response) => {
      const body: unknown = await response.json().catch(() => undefined);
      return response.ok ? { data: body as Session, response } : { error: body, response };
    }),
  );

const sendCsv = <T>(method: string, path: string, chosen: File): Promise<T> =>
  ask<T>(
    fetch(path, { method, headers: { 'content-type': 'text/csv', ...writeHeaders() }, body: chosen }).then(
      async (response) => {
        const body: unknown = await response.json().catch(() => undefined);
        return response.ok ? { data: body as T, response } : { error: body, response };
      },
    ),
  );

const unreachable: Problem = {
  status: 0,
  title: 'The server does not answer.',
  detail: 'What you typed is kept on this device and is sent when it is back.',
  errors: {},
};

/** The data of a call, or a ProblemError that says what to do. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result: { data?: T; error?: unknown; response: Response };
  try {
    result = await call;
  } catch {
    throw new ProblemError(unreachable);
  }
  if (result.data !== undefined) return result.data;
  // Done, and nothing to say. An empty answer of any other kind is none of ours.
  if (result.response.status === 204) return undefined as T;
  const error = new ProblemError(toProblem(result.error, result.response.status));
  if (error.problem.otherPerson) window.dispatchEvent(new Event('blue-dawn:signed-out'));
  throw error;
}

export function toProblem(body: unknown, status: number): Problem {
  const known = typeof body === 'object' && body !== null ? (body as Partial<Problem>) : {};
  return {
    ...known,
    status,
    ...(known.title === undefined ? { unnamed: true } : {}),
    title: known.title ?? (status >= 500 ? unreachable.title : 'That did not work.'),
    detail: known.detail ?? (status >= 500 ? unreachable.detail : `The server answered ${status}.`),
    errors: known.errors ?? {},
  };
}

export const problemOf = (error: unknown): Problem =>
  error instanceof ProblemError
    ? error.problem
    : { status: 0, title: 'Something went wrong on this page.', detail: String(error), errors: {} };
