import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Plan = Schemas["Plan"];
export type Tank = Schemas["Tank"];
export type Sheet = Schemas["SheetAnswer"];
export type Check = Schemas["Check"];
export type Glass = Schemas["Glass"];
export type Gauge = Schemas["Gauge"];
export type Stage = Schemas["Stage"];
export type Section = Schemas["Section"];
export type Sentence = Schemas["Sentence"];
export type Term = Schemas["Term"];
export type System = Schemas["SystemOut"];
export type SystemLine = Schemas["SystemLine"];
export type SystemsPart = Schemas["SystemsPart"];
export type SystemsOrder = NonNullable<
  NonNullable<paths["/api/systems"]["get"]["parameters"]["query"]>["order"]
>;
export type History = Schemas["HistoryOut"];
export type Revision = Schemas["RevisionOut"];
export type Library = Schemas["LibraryOut"];
export type Species = Schemas["SpeciesOut"];
export type Entry = Schemas["EntryOut"];
export type Kind = Schemas["KindOut"];
export type Unit = Schemas["Unit"];
export type Working = Schemas["Working"];
export type WorkingNode = Schemas["WorkingNode"];
export type Finding = Schemas["Finding"];
export type School = Schemas["School"];
export type WhatFits = Schemas["WhatFits"];
export type KindShown = Schemas["KindShown"];
export type LibraryRow = Schemas["LibraryRow"];
export type SawTooth = Schemas["SawTooth"];
export type RegimeRow = Schemas["RegimeRow"];
export type Water = Schemas["WaterOut"];
export type Source = Schemas["Source"];
export type Flow = Schemas["FlowDrawn"];
export type BuildForm = paths["/api/build/{form}"]["post"]["parameters"]["path"]["form"];
export type Fault = Schemas["Fault"];
export type FieldFault = Schemas["FieldFault"];
export type Remedy = Schemas["Remedy"];
export type LogEntry = Schemas["Entry"];
export type LastReading = Schemas["LastReading"];
export type LogSeries = Schemas["Series"];
export type Logged = Schemas["LoggedOut"];
export type Known = Schemas["Known"];
export type LogTable = Schemas["TableOut"];
export type Forecast = Schemas["Forecast"];
export type Trends = Schemas["Trends"];
export type NitratePage = Schemas["NitratePage"];
export type RoomKept = Schemas["RoomOut"];
export type Room = Schemas["Room"];
export type RoomSheet = Schemas["RoomAnswer"];
export type TankDrawn = Schemas["TankDrawn"];
export type ZoneFlow = Schemas["ZoneFlow"];
export type Season = Schemas["Season"];
export type Quote = Schemas["Quote"];
export type FirstWanted = Schemas["FirstWanted"];
export type Proposal = Schemas["ProposalOut"];
export type Takes = Schemas["Takes"];
export type Moved = Schemas["Moved"];
export type Settled = Schemas["SettledOut"];
export type Variant = Schemas["VariantOut"];
export type More = Schemas["More"];
export type StoreDay = Schemas["StoreDay"];
export type Controller = Schemas["ControllerAnswer"];
export type Level = Schemas["Level"];
export type Round = Schemas["Round"];
export type RoundStop = Schemas["Stop"];
export type RoundLine = Schemas["RoundLine"];
export type TickIn = Schemas["TickIn"];
export type Helper = Schemas["Helper"];
export type Home = Schemas["Home"];
export type Resident = Schemas["Resident"];
export type LifeLine = Schemas["LifeLine"];
export type HappenedOut = Schemas["HappenedOut"];
export type ResidentOut = Schemas["ResidentOut"];
export type BuyIn = Schemas["BuyIn"];
export type Consumable = Schemas["Consumable"];
export type Cared = Schemas["Cared"];
export type AwaySystem = Schemas["AwaySystem"];
export type Newcomers = Schemas["Newcomers"];
export type Arriving = Schemas["Arriving"];
export type ArrivingOut = Schemas["ArrivingOut"];
export type Course = Schemas["TreatmentCourse"];
export type CourseOut = Schemas["CourseOut"];
export type TubOut = Schemas["TubOut"];
export type TubPlace = Schemas["TubPlace"];
export type WaivedOut = Schemas["WaivedOut"];
export type Fodder = Schemas["Fodder"];
export type Larder = Schemas["Larder"];
export type Mix = Schemas["Mix"];
export type SystemWeek = Schemas["SystemWeek"];
export type GroupWeek = Schemas["GroupWeek"];
export type WeekFood = Schemas["WeekFood"];
export type Venture = Schemas["Venture"];
export type VentureKept = Schemas["VentureOut"];
export type VentureSheet = Schemas["VentureAnswer"];
export type VentureName = Schemas["VentureName"];
export type Breeding = Schemas["Breeding"];
export type Compared = Schemas["Compared"];
export type Rack = Schemas["RackAnswer"];
export type RackWanted = Schemas["RackWanted"];
export type LineKept = Schemas["LineKept"];
export type UnreadRow = Schemas["UnreadRow"];
export type UnreadPlace = paths["/api/unread"]["get"]["parameters"]["query"]["place"];
export type State = Glass["state"];

export const client = createClient<paths>({ baseUrl: "/", fetch: patiently });

const AWAY = "Loquen’s server does not answer.";
const FAILED = "Loquen’s server failed at this.";

/** An answer that is not what was asked for; status 0 when the server could not be reached at all. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly fault?: Fault,
  ) {
    super(fault ? plainText(fault.sentence) : status ? FAILED : AWAY);
  }

  /** What a person reads. */
  get sentence(): Sentence {
    return this.fault?.sentence ?? { text: this.message, terms: {} };
  }
}

/** A sentence with its values as they stand; where units matter it is drawn by `Says`. */
function plainText({ text, terms }: Sentence): string {
  return text.replace(/\{(\w+)\}/g, (whole, name: string) => String(terms[name]?.value ?? whole));
}

const BUSY = 503;
const TRIES = 3;
const LONGEST_WAIT_S = 10;

/** A server that is busy says when it may be asked again, and has changed nothing: it is asked again then. */
export async function patiently(request: Request): Promise<Response> {
  for (let tries = 1; ; tries++) {
    const again = tries < TRIES ? request.clone() : request;
    const answer = await globalThis.fetch(again);
    const wait = Number(answer.headers.get("Retry-After"));
    if (answer.status !== BUSY || !(wait > 0) || tries === TRIES) return answer;
    await waited(1000 * Math.min(wait, LONGEST_WAIT_S), request.signal);
  }
}

function waited(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      reject(new DOMException("let go", "AbortError"));
    });
  });
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer; throws Refused for a fault, or when nobody answered. */
export async function asked<T>(answer: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await answer;
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === "AbortError") throw cause;
    throw new Refused(0);
  }
  if (!got.response.ok) {
    const fault = got.error as Fault | undefined;
    throw new Refused(got.response.status, fault?.sentence ? fault : undefined);
  }
  return got.data as T;
}
