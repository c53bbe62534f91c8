import type {
  CarburetorFamily,
  ChokeKind,
  EngineKind,
  Fate,
  FitOption,
  FuelKind,
  LineVerdict,
  Note,
  Occurs,
  OilLevel,
  Origin,
  RemarkFate,
  ShelfStanding,
  StockMoveKind,
  ToldBy,
  TriedOutcome,
  WaitsFor,
  Whose,
} from '../api/client';

/** The families of carburetors, the engines they feed and their chokes. */
export const familyWord: Record<CarburetorFamily, string> = {
  floatBowl: 'Float bowl',
  diaphragm: 'Diaphragm',
  suctionTank: 'On the tank',
};
export const engineWord: Record<EngineKind, string> = { fourStroke: 'Four-stroke', twoStroke: 'Two-stroke' };
export const chokeWord: Record<ChokeKind, string> = {
  manual: 'By hand',
  vacuum: 'Vacuum',
  heat: 'Heat',
  lever: 'Run lever',
};

/** What can be fitted or done, as the bench says it. */
export const fitWord: Record<FitOption, string> = {
  kit: 'Kit',
  singleParts: 'Single parts',
  makersCarburetor: 'Maker’s carburetor',
  patternCarburetor: 'Pattern carburetor',
  donorPart: 'Donor part',
  makeIt: 'Make it',
  stopgap: 'Stopgap',
  decline: 'Decline',
  cleanAndRefit: 'Clean and refit, nothing new',
};

/** What an entry of the logbook is about. */
export const noteWord: Record<NonNullable<Note['kind']>, string> = {
  sheet: 'Spec sheet',
  fitting: 'What is fitted',
  partsHere: 'Parts taken',
  unfit: 'Not fitted after all',
  ordered: 'Ordered',
  orderUndone: 'Order taken back',
  arrived: 'Parts here',
  oldPart: 'Old part, measured',
  marks: 'Numbers and dates read',
  findings: 'Seen at Trace',
  fault: 'Fault found',
  apart: 'Apart or together',
  safety: 'Safe to run',
  told: 'Tried or said before',
  soils: 'What has to come off',
  method: 'How it is cleaned',
  dry: 'Rinsed and dry',
  passage: 'Passage',
  basket: 'Bath',
  back: 'Put in',
  job: 'How far it comes apart',
  out: 'Came out',
  stays: 'Stays in',
  has: 'What it has',
  cameBad: 'Came bad',
  undo: 'Taken back',
  reading: 'Reading',
  withdrawal: 'Reading taken back',
  release: 'Handed back',
  words: 'From an earlier book',
  checkedIn: 'Checked in',
  photo: 'Photo',
  facts: 'Changed at check-in',
  putRight: 'Put right at check-in',
  remark: 'Note',
  trial: 'Trial',
  turns: 'Screw turned',
};

/** What becomes of a note: where it is printed, and what it stops. */
export const remarkWord: Record<RemarkFate, string> = {
  seen: 'Seen',
  done: 'Done',
  left: 'Left as it is',
  unsafe: 'Unsafe',
  watch: 'To watch',
  toCome: 'Still to come',
  forOwner: 'For the owner',
  shopOnly: 'For the shop only',
};

/** What is to become of a part that came out. */
export const verdictWord: Record<LineVerdict, string> = {
  clean: 'Clean',
  refit: 'Refit',
  renew: 'Renew',
  broken: 'Torn or broken',
  missing: 'Missing',
  added: 'Added by someone',
  doesNotBelong: 'Does not belong',
  ours: 'Put in by us',
};

/** How a line of the ledger ended. */
export const fateWord: Record<Fate, string> = {
  refitted: 'Refitted',
  renewed: 'Renewed',
  made: 'Made here',
  leftOff: 'Left off',
  scrapped: 'Thrown out',
};

/** Where a new part came from that no kit and no shelf had. */
export const originWord: Record<Origin, string> = {
  overTheCounter: 'Over the counter',
  broughtByOwner: 'Brought by the owner',
  offARoll: 'Off a roll',
  outOfADrawer: 'Out of a drawer',
};

/** How an item stands on the shelf. */
export const shelfWord: Record<ShelfStanding, string> = {
  out: 'Out',
  reorder: 'Order now',
  onItsWay: 'On its way',
  enough: 'Enough',
  idle: 'Not used',
};

/** What can happen to stock. */
export const moveWord: Record<StockMoveKind, string> = {
  ordered: 'Ordered',
  received: 'Received',
  fitted: 'Fitted',
  returned: 'Came back',
  scrapped: 'Thrown out',
  cameBad: 'Came bad',
  made: 'Made here',
  fromDonor: 'Off a donor',
  orderTakenBack: 'Order taken back',
  counted: 'Counted',
};

/** A record of words as choices, in their order. */
export const choices = <T extends string>(words: Record<T, string>): { value: T; label: string }[] =>
  (Object.keys(words) as T[]).map((value) => ({ value, label: words[value] }));

/** What a tray can wait for, in the order the bench lists it. */
export const waitWord: Record<WaitsFor, string> = {
  hands: 'Hands',
  bath: 'Bath',
  runUp: 'Run-up',
  parts: 'Parts',
  bedIn: 'Bed-in',
  owner: 'Owner',
  handedBack: 'Handed back',
};

export const waits = Object.keys(waitWord) as WaitsFor[];

/** Who tried or said something before it came in. */
export const toldByWord: Record<ToldBy, string> = {
  owner: 'The owner',
  anotherShop: 'Another shop',
  somebody: 'Somebody else',
};

/** What came of something that was tried. */
export const triedOutcomeWord: Record<TriedOutcome, string> = {
  notSaid: 'Not said',
  noHelp: 'No help',
  forAWhile: 'Helped for a while',
};

/** When it does what is complained of. */
export const occursWord: Record<Exclude<Occurs, 'notSaid'>, string> = {
  always: 'Cold and warm',
  onlyCold: 'Only cold',
  onlyWarm: 'Only warm',
};

/** What is in the tank. */
export const fuelKindWord: Record<Exclude<FuelKind, 'notSaid'>, string> = {
  petrol: 'Petrol, no alcohol',
  withAlcohol: 'Petrol with alcohol',
  mix: 'Two-stroke mix',
};

/** Whose machine it is. */
export const whoseWord: Record<Exclude<Whose, 'notSaid'>, string> = {
  customers: 'A customer’s',
  shops: 'The shop’s',
  toSell: 'To sell on',
};

/** Where the oil stood. */
export const oilLevelWord: Record<Exclude<OilLevel, 'notSaid'>, string> = {
  below: 'Below its mark',
  atMark: 'At its mark',
  above: 'Above its mark',
};
