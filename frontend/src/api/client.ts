import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Job = Schemas['JobResponse'];
export type JobLine = Schemas['JobLine'];
export type Feature = Schemas['FeatureResponse'];
export type Result = Schemas['ResultResponse'];
export type Reading = Schemas['ReadingResponse'];
export type Judged = Schemas['JudgedResponse'];
export type Photo = Schemas['PhotoResponse'];
export type JobDetails = Schemas['JobDetailsResponse'];
export type Need = Schemas['NeedResponse'];
export type Order = Schemas['OrderResponse'];
export type Drawing = Schemas['DrawingResponse'];
export type Wear = Schemas['WearResponse'];
export type Procedure = Schemas['ProcedureResponse'];
export type ProcedureStep = Schemas['ProcedureStep'];
export type Setting = Schemas['SetResponse'];
export type MeansView = Schemas['MeansView'];
export type Housing = Schemas['HousingView'];
export type Gaskets = Schemas['GasketsView'];
export type GasketPair = Schemas['PairView'];
export type Tap = Schemas['TapView'];
export type Held = Schemas['GapResultResponse'];
export type Shims = Schemas['ShimsView'];
export type Shaft = Schemas['Shaft'];
export type Timing = Schemas['TimingView'];
export type Helix = Schemas['HelixView'];
export type Coach = Schemas['RunInView'];
export type Piece = Schemas['Piece'];
export type Step = Schemas['StepResponse'];
export type TaskView = Schemas['TaskView'];
export type Stack = Schemas['StackView'];
export type StackPart = Schemas['FittedPart'];
export type Carrier = Schemas['CarrierView'];
export type Tightening = Schemas['TorqueView'];
export type Packing = Schemas['PackingView'];
export type Turning = Schemas['TurningView'];
export type EndPlay = Schemas['EndPlayView'];
export type FirstHour = Schemas['FirstHourView'];
export type Grease = Schemas['GreaseView'];
export type Picture = Schemas['PictureView'];
export type Asked = Schemas['AskedView'];
export type Press = Schemas['PressView'];
export type TableMap = Schemas['MapResponse'];
export type Line = Schemas['ResultLine'];
export type Sum = Schemas['SumResponse'];
export type Gun = Schemas['GunResponse'];
export type Working = Schemas['Working'];
export type WorkingPlace = Schemas['WorkingPlace'];
export type JobAnswer = Schemas['JobAnswer'];
export type Fit = Schemas['FitResponse'];
export type Gauge = Schemas['GaugeResponse'];
/** A gauge as the cabinet has it. */
export type Kept = Schemas['CabinetResponse'];
export type Problem = Schemas['Error'];
export type PumpLine = Schemas['PumpLine'];
export type PumpDetail = Schemas['PumpPage'];
export type PartNow = Schemas['PartNowResponse'];
export type Bar = Schemas['BarResponse'];
export type Overhaul = Schemas['OverhaulResponse'];
export type LifeLine = Schemas['LifeLine'];
export type DueLine = Schemas['DueLineResponse'];
export type DueAhead = Schemas['DueAhead'];
export type Talk = Schemas['TalkResponse'];
export type SharedLink = Schemas['LinkResponse'];
export type PumpChoices = Schemas['PumpChoices'];
export type PumpOption = Schemas['PumpOption'];
export type SheetLine = Schemas['SheetLine'];
export type SheetDetail = Schemas['SheetDetail'];
export type DraftPage = Schemas['DraftPage'];
export type DraftState = Schemas['DraftState'];
export type Ask = Schemas['AskResponse'];
export type AskedGrid = Schemas['GridResponse'];
export type AskedSection = Schemas['SectionResponse'];
export type Pasted = Schemas['PastedResponse'];
export type ReadingPage = Schemas['ReadingPage'];
export type ReadLine = Schemas['LineResponse'];
export type ShelfLine = Schemas['ShelfResponse'];
export type Settings = Schemas['SettingsResponse'];
export type People = Schemas['PeopleResponse'];
export type Person = Schemas['PersonResponse'];
export type Backups = Schemas['BackupsResponse'];
export type TrailLine = Schemas['TrailLineResponse'];
export type Event = Schemas['EventResponse'];
export type Unit = 'mm' | 'in' | 'thou';

/** What the server said is wrong, in the one shape every error has. */
export class ApiError extends Error {
  constructor(readonly details: Problem) {
    super(details.problem);
  }
}

/** The server could not be reached, or can save nothing now: worth another try with the same identity. */
export class Unreachable extends Error {
  constructor(why = 'The server does not answer.') {
    super(`${why} Nothing typed is lost.`);
  }
}

/** Faults of the whole server, which say nothing against what was sent. */
const OF_THE_SERVER: readonly string[] = ['disk-full', 'read-only', 'damaged', 'busy'];

export function csrfToken(): string {
  return /csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? '';
}

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) => globalThis.fetch(request),
});

client.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken());
    return request;
  },
});

const NO_ANSWER: Problem = {
  code: 'bad-request',
  problem: 'The server answered with something unexpected.',
  field: '',
  hint: 'Try again; if it stays, tell whoever keeps the server.',
  suggestions: [],
  reasons: [],
  reason_wanted: false,
};

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'problem' in value && 'code' in value;
}

/** The data of an answer, or an error that can be shown. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  let settled: Answer<T>;
  try {
    settled = await answer;
  } catch {
    throw new Unreachable();
  }
  if (settled.data !== undefined) return settled.data;
  const problem = isProblem(settled.error) ? settled.error : NO_ANSWER;
  if (problem.code === 'signed-out')
    window.location.assign(
      `/sign-in?next=${encodeURIComponent(window.location.pathname + window.location.search)}`,
    );
  if (OF_THE_SERVER.includes(problem.code)) throw new Unreachable(`${problem.problem} ${problem.hint}`);
  throw new ApiError(problem);
}

/** Sends a form with a file; what comes back as `unwrap` has it. */
export async function posted<T>(
  url: string,
  body: FormData,
  headers: Record<string, string> = {},
): Promise<T> {
  return unwrap(answered<T>(url, body, headers));
}

/** The answer to a form with a file, as it came. */
export async function answered<T>(
  url: string,
  body: FormData,
  headers: Record<string, string> = {},
): Promise<Answer<T>> {
  const response = await fetch(url, {
    method: 'POST',
    body,
    headers: { 'X-CSRFToken': csrfToken(), ...headers },
  });
  const told: unknown = await response.json().catch(() => undefined);
  return response.ok ? { data: told as T, response } : { error: told, response };
}

/** A fresh identity for a record, also where the page is not served over TLS. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
  return hex.replace(/(.{8})(.{4})(.{4})(.{4})(.{12})/, '$1-$2-$3-$4-$5');
}
